import { expect, it } from "vitest";
import { contours, levels, pathOf } from "./contours";

const ramp = Array.from({ length: 6 * 4 }, (_, index) => (index % 6) * 10);

it("a ramp has one straight line at its level", () => {
  const found = contours(ramp, 6, 4, 25);
  expect(found).toHaveLength(3);
  for (const [x1, , x2] of found) {
    expect(x1).toBeCloseTo((2.5 + 0.5) / 6);
    expect(x2).toBeCloseTo((2.5 + 0.5) / 6);
  }
});

it("a level outside has none, and a flat grid has none", () => {
  expect(contours(ramp, 6, 4, 99)).toHaveLength(0);
  expect(contours(Array<number>(24).fill(3), 6, 4, 3)).toHaveLength(0);
});

it("a hill is closed: every end is met by another", () => {
  const hill = Array.from({ length: 81 }, (_, index) => {
    const [column, row] = [index % 9, Math.floor(index / 9)];
    return 100 - (column - 4) ** 2 * 9 - (row - 4) ** 2 * 9;
  });
  const ends = contours(hill, 9, 9, 50).flatMap(([x1, y1, x2, y2]) => [
    `${x1.toFixed(9)},${y1.toFixed(9)}`,
    `${x2.toFixed(9)},${y2.toFixed(9)}`,
  ]);
  const met = new Map<string, number>();
  for (const end of ends) met.set(end, (met.get(end) ?? 0) + 1);
  expect(ends.length).toBeGreaterThan(8);
  expect([...met.values()].every((count) => count === 2)).toBe(true);
});

it("a path is in pixels", () => expect(pathOf([[0, 0, 0.5, 1]], 200, 100)).toBe("M0.0 0.0L100.0 100.0"));

it("there is no line beside what is not known", () => {
  const holed = [...ramp];
  holed[2] = Number.NaN;
  expect(contours(holed, 6, 4, 25)).toHaveLength(2);
});

it("levels are round, inside the range, and about as many as asked for", () => {
  expect(levels(0.13, 2.9, 9)).toEqual([0.5, 1, 1.5, 2, 2.5]);
  expect(levels(-0.25, 0.25, 5)).toEqual([-0.2, -0.1, 0, 0.1, 0.2]);
  expect(levels(0, 40, 9)).toEqual([5, 10, 15, 20, 25, 30, 35]);
  expect(levels(3, 3, 9)).toEqual([]);
  expect(levels(Infinity, -Infinity, 9)).toEqual([]);
});
