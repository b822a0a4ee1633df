import { describe, expect, it } from "vitest";
import type { PlaneSection } from "../../api/types";
import { elevationOf, heldStill, hingePlace, lineEnds, movedBehind, wedge } from "./elevation";

const plane = {
  half_field_mm: 50,
  points: [
    { wanted: "sharp", behind_nearest_mm: 0, across_mm: -30 },
    { wanted: "sharp", behind_nearest_mm: 52, across_mm: 45 },
    { wanted: "soft", behind_nearest_mm: 900, across_mm: 45 },
    { wanted: "sharp", behind_nearest_mm: null, across_mm: null },
  ],
} as unknown as PlaneSection;
const view = elevationOf(plane, 52, 500, 340);

it("one scale both ways, every sharp point in sight", () => {
  expect(view.x(10) - view.x(0)).toBeCloseTo(view.y(0) - view.y(10));
  for (const place of [0, 52]) {
    expect(view.x(place)).toBeGreaterThan(0);
    expect(view.x(place)).toBeLessThan(500);
  }
  expect(view.y(50)).toBeGreaterThanOrEqual(0);
  expect(view.mm(view.pxPerMm)).toBe(1);
});

it("a plane runs from bottom to top through its place on the axis", () => {
  const [x1, y1, x2, y2] = lineEnds(view, { at_axis_mm: 20, slope: 0.7 });
  const share = (view.y(0) - y1) / (y2 - y1);
  expect(x1 + share * (x2 - x1)).toBeCloseTo(view.x(20));
});

it("an endless far face runs to the edge", () => {
  expect(wedge(view, { at_axis_mm: 1, slope: 0.1 }, null)).toContain("510.0,");
});

it("a hinge off the drawing is pointed at from the edge", () => {
  const off = hingePlace(view, -430, -600);
  expect(off.inside).toBe(false);
  expect(off.x).toBeGreaterThanOrEqual(0);
  expect(off.y).toBeLessThanOrEqual(340);
  expect(off.angle).toBeGreaterThan(90);
  expect(hingePlace(view, 20, 0).inside).toBe(true);
});

it("with no points read it still stands", () => {
  const empty = elevationOf({ ...plane, points: [] }, 0, 500, 340);
  expect(Number.isFinite(empty.pxPerMm)).toBe(true);
});

describe("while a point is held", () => {
  const then = [
    { id: "a", corner: null, behind_nearest_mm: null },
    { id: "b", corner: 1, behind_nearest_mm: 12 },
    { id: "c", corner: null, behind_nearest_mm: 30 },
  ] as PlaneSection["points"];
  const farther = (by: number) =>
    then.map((each) => ({
      ...each,
      behind_nearest_mm: each.behind_nearest_mm === null ? null : each.behind_nearest_mm + by,
    }));

  it("the others stay where they are, also when it is the nearest that is drawn nearer", () => {
    const by = movedBehind(then, farther(5));
    expect(by).toBe(5);
    const still = heldStill(view, by);
    for (const place of [12, 30]) expect(still.x(place + 5)).toBe(view.x(place));
    expect([still.from, still.to]).toEqual([view.from + 5, view.to + 5]);
    expect(still.y).toBe(view.y);
  });

  it("nothing moves where nothing is known of the others, or they stand where they stood", () => {
    expect(movedBehind([], farther(5))).toBe(0);
    expect(movedBehind(then, [])).toBe(0);
    expect(movedBehind(then, farther(0))).toBe(0);
  });
});
