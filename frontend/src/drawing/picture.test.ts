import { expect, it } from "vitest";
import { between, fitted, nudged, placed } from "./picture";

it("a picture fits its box whole, in the middle of what is left", () => {
  expect(fitted(200, 100, 100, 100)).toEqual({ scale: 0.5, left: 0, top: 25 });
  expect(fitted(100, 200, 100, 100)).toEqual({ scale: 0.5, left: 25, top: 0 });
});

it("two points span a length, one or two alike do not", () => {
  expect(
    between([
      { x: 0, y: 0 },
      { x: 3, y: 4 },
    ]),
  ).toBe(5);
  expect(between([{ x: 1, y: 1 }])).toBeNull();
  expect(
    between([
      { x: 1, y: 1 },
      { x: 1, y: 1 },
    ]),
  ).toBeNull();
});

it("a third point takes the place of the nearer one", () => {
  const two = [
    { x: 0, y: 0 },
    { x: 100, y: 0 },
  ];
  expect(placed(two, { x: 90, y: 0 })).toEqual([
    { x: 0, y: 0 },
    { x: 90, y: 0 },
  ]);
  expect(placed(two, { x: 10, y: 0 })).toEqual([
    { x: 10, y: 0 },
    { x: 100, y: 0 },
  ]);
  expect(placed([], { x: 1, y: 2 })).toEqual([{ x: 1, y: 2 }]);
});

it("a nudged point stays on the picture", () => {
  expect(nudged({ x: 5, y: 5 }, -10, 1, 100, 50)).toEqual({ x: 0, y: 6 });
  expect(nudged({ x: 99, y: 49 }, 10, 10, 100, 50)).toEqual({ x: 100, y: 50 });
});
