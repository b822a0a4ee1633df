import { expect, it } from "vitest";
import type { ChainGear, Kit, Shot } from "../../api/types";
import { dropped, lensIndex, moved, onlyLens, placed, rowKey, withLens, withPiece, withRig } from "./row";

const gear = (kind: string, kit_id?: string) => ({ kind, kit_id, name: kind }) as unknown as ChainGear;
const row = (...kinds: string[]) => kinds.map((kind) => placed(gear(kind, kind)));
const kinds = (pieces: ReturnType<typeof row>) => pieces.map((each) => each.gear.kind).join(" ");

it.each([
  ["tube", ["lens", "converter"], "lens tube converter"],
  ["converter", ["lens", "tube"], "lens tube converter"],
  ["close_up", ["step_ring", "lens"], "step_ring close_up lens"],
  ["reversing_ring", ["lens", "tube"], "lens reversing_ring tube"],
  ["objective", ["lens"], "objective lens"],
  ["tube", [], "tube"],
  ["lens", ["tube"], "tube lens"],
])("a new %s in %j goes where it usually does", (kind, before, after) => {
  expect(kinds(withPiece(row(...before), gear(kind)))).toBe(after);
});

it("a second lens faces the first", () => {
  const both = withPiece(row("lens"), gear("lens", "second"));
  expect(both.map((each) => each.reversed)).toEqual([true, false]);
  expect(lensIndex(both)).toBe(1);
});

it("one lens is swapped where it stands, and of two none is the lens", () => {
  const tubed = row("lens", "tube");
  expect(onlyLens(tubed)).toBe(0);
  const swapped = withLens(
    [{ ...(tubed[0] as (typeof tubed)[number]), reversed: true }, ...tubed.slice(1)],
    0,
    gear("zoom", "other"),
  );
  expect(swapped.map((each) => [each.gear.kit_id, each.reversed])).toEqual([
    ["other", true],
    ["tube", false],
  ]);
  expect(onlyLens(row("objective", "lens"))).toBeNull();
  expect(onlyLens(row("objective", "tube"))).toBeNull();
  expect(onlyLens(row("tube"))).toBeNull();
});

it("pieces move by one, by a drag, and never off the row", () => {
  const start = row("close_up", "lens", "tube", "converter");
  expect(kinds(moved(start, 2, 3))).toBe("close_up lens converter tube");
  expect(moved(start, 0, -1)).toBe(start);
  expect(kinds(dropped(start, [3], 1, "after"))).toBe("close_up lens converter tube");
  expect(kinds(dropped(start, [0, 1], 3, "before"))).toBe("tube close_up lens converter");
  expect(dropped(start, [1], 1, "before")).toBe(start);
});

it("a measured size follows its own rig and no other", () => {
  const body = { kind: "body", kit_id: "b", crop_modes: [{ name: "small" }] } as unknown as Shot["body"];
  const shot = { rig: row("lens"), body, crop_mode: "small" } as unknown as Shot;
  const kit = {
    measured_rigs: [{ rig: ["lens", "tube", "b"], magnification: 1.2, uncertainty: 0.01, modelled: 1.1 }],
  } as unknown as Kit;
  const longer = withRig(shot, { rig: row("lens", "tube") }, kit);
  expect(longer.measured).toEqual({ magnification: 1.2, uncertainty: 0.01, modelled: 1.1 });
  expect(withRig(longer, { rig: row("lens") }, kit).measured).toBeNull();
  expect(withRig(shot, { body: { ...body, crop_modes: [] } }, kit).crop_mode).toBeNull();
  expect(rowKey([placed(gear("lens"))], body)).toBeNull();
});
