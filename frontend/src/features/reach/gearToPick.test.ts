import { expect, it } from "vitest";
import type { Gear } from "../../api/types";
import { gearToPick } from "./gearToPick";

const gear = (kit_id: string, name: string) => ({ kind: "tube", kit_id, name }) as unknown as Gear;

it("what is on the table comes first, then what is not, then generic gear that the kit lacks", () => {
  const picked = gearToPick(
    [
      { carried: false, gear: gear("a", "left at home") },
      { carried: true, gear: gear("b", "here") },
    ],
    [{ gear: gear("b", "here") }, { gear: gear("c", "usual") }],
  );
  expect(picked.map((each) => each.label)).toEqual([
    "here",
    "left at home (not on the table)",
    "usual (generic)",
  ]);
});

it("generic gear goes into a shot without an id of the kit: nothing may be kept under it", () => {
  const [generic] = gearToPick([], [{ gear: gear("c", "usual") }]);
  expect(generic?.gear.kit_id).toBeNull();
});

it("every option has an id of its own, also where kit and shelf share one", () => {
  const picked = gearToPick([{ gear: gear("a", "x") }], [{ gear: gear("c", "y") }, { gear: gear("d", "y") }]);
  expect(new Set(picked.map((each) => each.id)).size).toBe(picked.length);
});

it("nothing to pick from is no reason to fail", () => {
  expect(gearToPick(undefined, undefined)).toEqual([]);
});
