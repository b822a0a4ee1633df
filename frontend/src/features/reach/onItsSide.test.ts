import { describe, expect, it } from "vitest";
import type { Shot } from "../../api/types";
import { turned } from "./onItsSide";

const shot = {
  framing: { by: "frame_width", frame_width_mm: 72 },
  camera_on_its_side: false,
  plane: {
    points: [
      { id: "a", from_left: 0.6, from_top: 0.8 },
      { id: "b", from_left: 0.05, from_top: 0.5 },
    ],
  },
} as unknown as Shot;

describe("turning the camera on its side", () => {
  it("keeps the size on the sensor and the points where they are in the subject", () => {
    const upright = turned(shot, true, 1.5);
    expect(upright.camera_on_its_side).toBe(true);
    expect(upright.framing).toEqual({ by: "frame_width", frame_width_mm: 48 });
    // 0.1 of 72 mm is 0.15 of 48 mm; 0.3 of 48 mm is 0.2 of 72 mm.
    expect(upright.plane?.points?.[0]?.from_left).toBeCloseTo(0.65);
    expect(upright.plane?.points?.[0]?.from_top).toBeCloseTo(0.7);
  });

  it("brings a point that the turned frame leaves out to its edge", () => {
    expect(turned(shot, true, 1.5).plane?.points?.[1]?.from_left).toBe(0);
  });

  it("is undone by turning back, for points on both frames", () => {
    const back = turned(turned(shot, true, 1.5), false, 1 / 1.5);
    expect(back.framing).toEqual(shot.framing);
    expect(back.plane?.points?.[0]?.from_left).toBeCloseTo(0.6);
    expect(back.plane?.points?.[0]?.from_top).toBeCloseTo(0.8);
  });

  it("changes nothing that is so already, nor before the frame is known", () => {
    expect(turned(shot, false, 1.5)).toBe(shot);
    expect(turned(shot, true, Number.NaN)).toBe(shot);
  });
});
