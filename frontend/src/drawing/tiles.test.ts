import { describe, expect, it } from "vitest";
import { held, levelFor, levelsOf, tilesIn, wholeIn, zoomedAt } from "./tiles";

const SIZE = { width: 9504, height: 6336 };
const BOX = { width: 600, height: 500 };

describe("tiles of a large picture", () => {
  it("are of as many sizes as it takes to fit one tile", () => {
    expect([1, 512, 513, 1024, 1025, 9504].map((width) => levelsOf({ width, height: 10 }))).toEqual([
      1, 1, 2, 2, 3, 6,
    ]);
  });

  it("are as large as the screen needs, and no larger", () => {
    expect(levelFor(1, 1, SIZE)).toBe(0);
    expect(levelFor(2, 1, SIZE)).toBe(0);
    expect(levelFor(0.5, 1, SIZE)).toBe(1);
    expect(levelFor(0.3, 1, SIZE)).toBe(1);
    expect(levelFor(0.5, 2, SIZE)).toBe(0);
    expect(levelFor(0.001, 1, SIZE)).toBe(5);
  });

  it("in sight cover the view and reach no further than the picture", () => {
    const view = { x: 9300, y: 6200, scale: 1 };
    const found = tilesIn(view, BOX, SIZE, 0);
    expect(found[0]).toMatchObject({ column: 17, row: 11, left: 17 * 512, top: 11 * 512 });
    const last = found.at(-1);
    expect((last?.left ?? 0) + (last?.width ?? 0)).toBe(SIZE.width);
    expect((last?.top ?? 0) + (last?.height ?? 0)).toBe(SIZE.height);
    expect(tilesIn(wholeIn(BOX, SIZE), BOX, SIZE, 5)).toHaveLength(1);
  });
});

describe("a view", () => {
  it("shows the whole picture at first, and stays on it", () => {
    expect(wholeIn(BOX, SIZE).scale).toBeCloseTo(600 / 9504);
    expect(held({ x: -500, y: 99_999, scale: 1 }, BOX, SIZE)).toEqual({ x: 300, y: 6336 - 250, scale: 1 });
    expect(held({ x: 0, y: 0, scale: 1e-6 }, BOX, SIZE)).toEqual(wholeIn(BOX, SIZE));
    expect(held({ x: 0, y: 0, scale: 99 }, BOX, SIZE).scale).toBe(8);
  });

  it("comes nearer at the pointer", () => {
    const view = { x: 1000, y: 800, scale: 0.5 };
    const pointer = { x: 500, y: 100 };
    const near = zoomedAt(view, BOX, pointer, 2);
    const under = (at: typeof view) => [
      at.x + (pointer.x - BOX.width / 2) / at.scale,
      at.y + (pointer.y - BOX.height / 2) / at.scale,
    ];
    expect(under(near)).toEqual(under(view));
    expect(near.scale).toBe(1);
  });
});
