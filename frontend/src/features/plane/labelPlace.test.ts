import { expect, it } from "vitest";
import { labelPlace } from "./labelPlace";

it("a name stands above its mark, in the middle", () => {
  expect(labelPlace(200, 100, 400)).toEqual({ x: 0, y: -20, textAnchor: "middle" });
});

it.each([
  [3, "start"],
  [71, "start"],
  [72, "middle"],
  [328, "middle"],
  [329, "end"],
  [400, "end"],
])("at %d of 400 it is written from its %s", (x, anchor) => {
  expect(labelPlace(x, 100, 400).textAnchor).toBe(anchor);
});

it.each([
  [0, 6],
  [20, 6],
  [50, 36],
  [350, 364],
  [390, 394],
  [400, 394],
])("and never beyond a side: at %d it begins or ends at %d", (x, at) => {
  expect(x + labelPlace(x, 100, 400).x).toBe(at);
});

it("at the top it is written below", () => {
  expect(labelPlace(200, 20, 400).y).toBeGreaterThan(20);
  expect(labelPlace(200, 36, 400).y).toBe(-20);
});

it("in a drawing narrower than two names it is written inward from the left", () => {
  expect(labelPlace(10, 100, 60).textAnchor).toBe("start");
});
