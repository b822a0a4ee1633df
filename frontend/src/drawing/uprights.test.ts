import { expect, it } from "vitest";
import { uprights } from "./uprights";
import { makeViewport } from "./viewport";

const view = makeViewport(200, 100, 5, 10);

it("one stroke a place, from top to bottom", () => {
  expect(uprights([0, 5], view, 0, 1, 10)).toBe("M50.0 1V10M100.0 1V10");
});

it("what is out of sight is left out, and all move with the origin", () => {
  expect(uprights([-100, 0, 100], view, 0, 0, 1)).toBe("M50.0 0V1");
  expect(uprights([0], view, 2, 0, 1)).toBe("M70.0 0V1");
});

it("five thousand frames are one path", () => {
  const places = Array.from({ length: 5000 }, (_, index) => index / 500);
  expect(uprights(places, view, 0, 0, 1).match(/M/g)).toHaveLength(5000);
});
