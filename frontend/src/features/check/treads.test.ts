import { expect, test } from "vitest";
import type { CheckReport, FrameReport } from "../../api/types";
import { columns, gridOf } from "./grid";
import { treads } from "./treads";
import { factsOf, weightOf } from "./words";

const frame = (focus_mm: number | null, used = true, ev: number | null = 0): FrameReport => ({
  file: "P.jpg",
  used,
  why_not: "",
  to_reference: null,
  place_steps: null,
  focus_mm,
  ev,
  moved_px: null,
  likeness: null,
  loss: null,
  clipped: null,
});

const report = (frames: FrameReport[], plan: Partial<CheckReport["plan"]> = {}) =>
  ({
    order: frames.map((_, index) => index),
    frames,
    plan: { step_mm: 1, depth_of_field_mm: 2, first_mm: -1, planned_frames: 3, depth_mm: null, ...plan },
    steps_found: [1, null, 1.5],
    covered_share: 0.5,
    unknown_share: 0.25,
  }) as unknown as CheckReport;

test("a frame holds half the depth of field on either side of where it stands", () => {
  const stairs = treads(report([frame(-1), frame(0), frame(2, false)]));
  expect(stairs?.rows.map((row) => row.found)).toEqual([
    [-2, 0],
    [-1, 1],
    [1, 3],
  ]);
  expect(stairs?.rows.map((row) => row.planned?.[0])).toEqual([-2, -1, 0]);
  expect(stairs?.rows.map((row) => row.look)).toEqual(["filled", "filled", "broken"]);
  expect([stairs?.from, stairs?.to]).toEqual([-2, 3]);
  expect([stairs?.near, stairs?.far]).toEqual([0, 1]);
});

test("behind frames that could not be used the plan is drawn where these stood", () => {
  const looked = report([frame(1), frame(2)]);
  const [third, fourth] = looked.frames;
  if (!third || !fourth) throw new Error("two frames are looked at");
  looked.frames = [
    { ...third, place_steps: 2 },
    { ...fourth, place_steps: 3 },
  ];
  // Three were planned from -1 mm on, 1 mm apart: the third stands at 1 mm, a fourth was not planned.
  expect(treads(looked)?.rows.map((row) => row.planned)).toEqual([[0, 2], null]);
});

test("by a rail that goes twice as far as it reads a frame holds half as many of its marks", () => {
  const measured = { step_mm: 2, doubt_mm: 0.02, pairs: 11, agree: 1 };
  const stairs = treads({ ...report([frame(0), frame(1)]), step_measured: measured });
  expect(stairs?.rows.map((row) => row.found)).toEqual([
    [-0.5, 0.5],
    [0.5, 1.5],
  ]);
  expect(stairs?.rows[0]?.planned).toEqual([-2, 0]);
});

test("what must be sharp is marked as deep as it is, where that is known", () => {
  const stairs = treads(report([frame(-1), frame(0), frame(1)], { depth_mm: 0.7 }));
  expect([stairs?.near, stairs?.far]).toEqual([0, 0.7]);
});

test("without a step in millimetres nothing is drawn in them", () => {
  expect(treads(report([frame(0)], { step_mm: null }))).toBeNull();
  expect(treads(report([frame(null)]))).toBeNull();
});

test("a frame beyond the plan has no outline", () => {
  const rows = treads(report([frame(-1), frame(0), frame(1), frame(2)]))?.rows ?? [];
  expect(rows.map((row) => row.planned !== null)).toEqual([true, true, true, false]);
});

test("tiles are as wide as their middles are apart", () => {
  const place = (x: number, y: number) => ({
    x,
    y,
    name: "",
    covered: true,
    contrast: null,
    frame: null,
    depth_mm: null,
  });
  const grid = [0, 10, 20, 30].flatMap((x) => [0, 7, 14, 21].map((y) => place(x, y)));
  expect(gridOf(grid)).toEqual({ width: 10, height: 7 });
  expect(gridOf([place(3, 4)])).toEqual({ width: 24, height: 24 });
});

test("frames share the width evenly", () => {
  const { x, each } = columns(4, 100);
  expect([0, 1, 2, 3].map(x)).toEqual([12.5, 37.5, 62.5, 87.5]);
  expect(each).toBe(25);
});

test("facts say what is used, what is unknown and what was found", () => {
  const facts = Object.fromEntries(
    factsOf(report([frame(0, true, 0.1), frame(1, true, -0.2), frame(2, false, -3)]), "mm"),
  );
  expect(facts["frames used"]).toBe("2 of 3");
  expect(facts["light, widest apart"]).toBe("0.30 stops");
  expect(facts["places sharp somewhere"]).toBe("50 %");
  expect(facts["step, planned"]).toBe("1 mm");
  expect(facts).not.toHaveProperty(["step, by how the view grows"]);
  const measured = { step_mm: 2.04, doubt_mm: 0.02, pairs: 11, agree: 1 };
  const longer = { ...report([frame(0)]), step_measured: measured };
  expect(Object.fromEntries(factsOf(longer, "mm"))["step, by how the view grows"]).toBe("2.04 ± 0.02 mm");
  expect(Object.fromEntries(factsOf(longer, "in"))["step, planned"]).toBe("0.0394 in");
  expect(Object.fromEntries(factsOf(report([frame(0, true, null)], { step_mm: null }), "mm"))).toMatchObject({
    "light, widest apart": "unknown",
    "step, planned": "no plan",
  });
});

test("findings are marked by what they would cost", () => {
  const cost = (costs: number) => weightOf({ costs } as Parameters<typeof weightOf>[0]);
  expect([3, 2, 1, 0].map(cost)).toEqual(["dear", "work", "word", "word"]);
});
