import { describe, expect, it } from "vitest";
import { cellsOver, shareOver } from "./cells";

describe("cells of a grid that reach a bound", () => {
  it("are joined in their row, and never over its end", () => {
    const values = [0, 5, 5, 5, 0, 5, 5, 5, 0];
    expect(cellsOver(values, 3, 3)).toEqual([
      { column: 1, row: 0, cells: 2 },
      { column: 0, row: 1, cells: 1 },
      { column: 2, row: 1, cells: 1 },
      { column: 0, row: 2, cells: 2 },
    ]);
    expect(shareOver(values, 3)).toBeCloseTo(6 / 9);
    expect(cellsOver([], 3, 1)).toEqual([]);
  });
});
