import { describe, expect, it } from "vitest";
import type { Point } from "../api/types";
import { deeper, freshId, newPoint, parseReadings, readBy } from "./moves";

const rail: Point = {
  id: "p1",
  name: "",
  wanted: "sharp",
  from_left: 0.5,
  from_top: 0.5,
  depth: { by: "rail", readings_mm: [10, 10.2] },
};

describe("points", () => {
  it("a new one is read as the last one was, and has an id of its own", () => {
    const tape = newPoint([{ ...rail, depth: { by: "tape", readings_mm: [] } }], 0.2, 1.4);
    expect(tape.depth.by).toBe("tape");
    expect(tape.from_top).toBe(1);
    expect(tape.id).toBe("p2");
    expect(freshId([{ ...rail, id: "p2" }])).toBe("p3");
  });

  it("readings of one kind are not taken for another", () => {
    expect(readBy(rail, "tape").depth.readings_mm).toEqual([]);
    expect(readBy(rail, "rail")).toBe(rail);
    expect(readBy(rail, "angle").depth).toMatchObject({ by: "angle", recedes_deg: 90 });
  });

  it("moved deeper, every reading moves, whichever way the rail counts", () => {
    expect(deeper(rail, 1.5, "toward").depth.readings_mm).toEqual([11.5, 11.7]);
    expect(deeper(rail, 1.5, "away").depth.readings_mm).toEqual([8.5, 8.7]);
    const tape: Point = { ...rail, depth: { by: "tape", readings_mm: [400] } };
    expect(deeper(tape, 2, "away").depth.readings_mm).toEqual([402]);
    expect(deeper({ ...rail, depth: { by: "rail", readings_mm: [] } }, 2, "away").depth.readings_mm).toEqual(
      [],
    );
  });
});

describe("readings as they are typed", () => {
  it.each([
    ["44.2", [44.2]],
    ["44.2 44.4", [44.2, 44.4]],
    ["44,2 44,4", [44.2, 44.4]],
    ["44.2, 44.4; -3", [44.2, 44.4, -3]],
    ["", []],
  ])("%s", (text, readings) => expect(parseReadings(text)).toEqual({ readings }));
  it.each(["ten", "4 x", "1e999"])("%s is refused in a sentence", (text) => {
    const parsed = parseReadings(text);
    expect("problem" in parsed && parsed.problem).toMatch(/\.$/);
  });
});
