import { describe, expect, it } from "vitest";
import { pressed } from "./usePanning";

const VIEW = { x: 1000, y: 800, scale: 0.5 };
const BOX = { width: 600, height: 500 };

describe("keys that move a picture", () => {
  it("arrows go eighty pixels of the screen, whatever the scale", () => {
    expect(pressed("ArrowLeft", VIEW, BOX)).toEqual({ ...VIEW, x: 840 });
    expect(pressed("ArrowRight", VIEW, BOX)).toEqual({ ...VIEW, x: 1160 });
    expect(pressed("ArrowUp", VIEW, BOX)).toEqual({ ...VIEW, y: 640 });
    expect(pressed("ArrowDown", { ...VIEW, scale: 2 }, BOX)).toEqual({ x: 1000, y: 840, scale: 2 });
  });

  it("plus and minus come nearer and go farther about the middle; two of either are a factor of two", () => {
    const nearer = pressed("+", VIEW, BOX);
    expect(nearer).toMatchObject({ x: 1000, y: 800 });
    expect(nearer?.scale).toBeCloseTo(Math.SQRT1_2);
    expect(pressed("=", VIEW, BOX)).toEqual(nearer);
    expect(pressed("-", pressed("+", VIEW, BOX) ?? VIEW, BOX)?.scale).toBeCloseTo(0.5);
    expect(pressed("+", nearer ?? VIEW, BOX)?.scale).toBeCloseTo(1);
  });

  it("others are left to the page", () => {
    for (const key of ["Tab", "Escape", "a", "0", " "]) expect(pressed(key, VIEW, BOX)).toBeNull();
  });
});
