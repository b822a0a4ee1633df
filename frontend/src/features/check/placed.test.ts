import { describe, expect, it } from "vitest";
import { viewOn } from "../../drawing/tiles";
import { placedOn } from "./placed";

describe("the proof of another look", () => {
  const here = { origin: [40, 20], width_px: 6000 };

  it("lies by its place in the whole frame", () => {
    const placed = placedOn({ origin: [100, 60], width_px: 6000 }, here);
    // The pixel 1040, 520 of the frame is 1000, 500 of this proof and 940, 460 of the other.
    expect(viewOn({ x: 1000, y: 500, scale: 0.5 }, placed)).toEqual({ x: 940, y: 460, scale: 0.5 });
  });

  it("of frames with half the pixels is drawn as large", () => {
    const placed = placedOn({ origin: [10, 5], width_px: 3000 }, here);
    expect(viewOn({ x: 960, y: 480, scale: 0.5 }, placed)).toEqual({ x: 490, y: 245, scale: 1 });
  });

  it("shares the places of this one where it is one of its own", () => {
    expect(viewOn({ x: 3, y: 4, scale: 2 }, null)).toEqual({ x: 3, y: 4, scale: 2 });
  });
});
