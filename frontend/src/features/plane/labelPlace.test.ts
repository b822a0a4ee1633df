import { expect, it } from "vitest";
import { labelPlace } from "./labelPlace";

it("a name stands above its mark, in the middle", () => {
  expect(labelPlace("rim", 200, 100, 400)).toEqual({ text: "rim", x: 0, y: -20 });
});

it("at the top it is written below", () => {
  expect(labelPlace("rim", 200, 20, 400).y).toBeGreaterThan(20);
  expect(labelPlace("rim", 200, 36, 400).y).toBe(-20);
});

it.each([0, 3, 60, 200, 390, 400])("at %d of 400 none of it is beyond a side", (x) => {
  const name = "back row, left";
  const middle = x + labelPlace(name, x, 100, 400).x;
  expect(middle - 49).toBeGreaterThanOrEqual(6);
  expect(middle + 49).toBeLessThanOrEqual(394);
});

it("it is moved no farther than it must be", () => {
  expect(labelPlace("back row, left", 0, 100, 400).x).toBe(6 + 49);
  expect(labelPlace("back row, left", 400, 100, 400).x).toBe(-6 - 49);
  expect(labelPlace("back row, left", 55, 100, 400).x).toBe(0);
});

it("a name longer than the drawing is wide is cut off and stands in its middle", () => {
  const { text, x } = labelPlace("the far rim of the tray behind the third row from the front", 10, 100, 300);
  expect(text).toBe("the far rim of the tray behind the third…");
  expect(Math.abs(10 + x - 150)).toBeLessThan(1);
  expect(labelPlace("rim", 10, 100, 4).text).toBe("…");
});
