import { describe, expect, it } from "vitest";
import type { Drill, DrillSetting } from "../../api/types";
import { momentOf, readingOf, settingWords, turned, turnOf } from "./hand";

const drill = {
  kind: "tilt",
  knobs: [
    { name: "focus", low: -2, high: 2, scale: ["-2", "-1", "+0", "+1", "+2"] },
    { name: "tilt", low: -1, high: 1, scale: ["-0.25°", "+0.00°", "+0.25°"] },
  ],
} as unknown as Drill;
const start: DrillSetting = { focus: 0, tilt: 0, turn: 0, stop: 2, rail: 0 };

describe("the hand at the knobs", () => {
  it("turns by clicks and stops at the end", () => {
    expect(turned(drill, start, "focus", 1).focus).toBe(1);
    expect(turned(drill, start, "focus", 9).focus).toBe(2);
    expect(turned(drill, { ...start, focus: 2 }, "focus", 1)).toEqual({ ...start, focus: 2 });
  });

  it("turns nothing that the lens does not have", () => {
    expect(turned(drill, start, "turn", 1)).toBe(start);
    expect(turnOf(drill, "d", false)).toBeNull();
  });

  it("knows its keys, and ten clicks with shift", () => {
    expect(turnOf(drill, "ArrowUp", false)).toEqual({ name: "tilt", clicks: 1 });
    expect(turnOf(drill, "ArrowLeft", true)).toEqual({ name: "focus", clicks: -10 });
  });

  it("says where it stands", () => {
    expect(readingOf(drill, { ...start, tilt: 1 }, "tilt")).toBe("+0.25°");
    expect(settingWords(drill, start)).toBe("focus +0, tilt +0.00°");
  });
});

it("judges the frame on the screen, whatever the line and the machine took to bring it", () => {
  const asked = 12.4;
  for (const delay of [15, 200, 1400]) {
    const drawn = { t: asked, at: 5000 + delay };
    // Pressed 80 ms after it was seen: the same moment of the set each time.
    expect(momentOf(drawn, drawn.at + 80)).toBeCloseTo(12.48, 9);
  }
  expect(momentOf(null, 5000)).toBeNull();
});
