import { expect, it } from "vitest";
import { reachWords, signed } from "./reachWords";

const ring = {
  is_fixed: false,
  smallest_magnification: 0,
  largest_magnification: 1,
  farthest_focus_mm: null,
};

it("a bare lens gives infinity to its closest", () => {
  expect(reachWords(ring, "mm")).toBe("This rig gives infinity to 1×.");
});

it("a lens on tubes says how far it still focuses, in the unit asked", () => {
  const tubes = { ...ring, smallest_magnification: 0.2, largest_magnification: 1.24, farthest_focus_mm: 432 };
  expect(reachWords(tubes, "mm")).toBe(
    "This rig gives 0.2× to 1.24×, and focuses no farther than 432 mm from the sensor.",
  );
  expect(reachWords(tubes, "in")).toContain("17 in from the sensor");
});

it("a rig of one size says so and nothing else", () => {
  expect(reachWords({ ...ring, is_fixed: true }, "mm")).toBe("This rig gives this one size.");
});

it.each([
  [0.236, "+0.236×"],
  [-0.4, "−0.4×"],
  [0, "±0×"],
])("a difference of %s is written %s", (value, text) => {
  expect(signed(value, (each) => `${Number(each.toPrecision(3))}×`)).toBe(text);
});
