import { describe, expect, it } from "vitest";
import { joined } from "./joined";

describe("bands as pieces", () => {
  it("joins what overlaps and what touches, and keeps gaps", () => {
    expect(
      joined([
        [0, 2],
        [1, 3],
        [3, 4],
        [5, 6],
      ]),
    ).toEqual([
      [0, 4],
      [5, 6],
    ]);
  });

  it("takes bands in any order, one inside another, and leaves out empty ones", () => {
    expect(
      joined([
        [5, 6],
        [0, 4],
        [1, 2],
        [4.5, 4.5],
      ]),
    ).toEqual([
      [0, 4],
      [5, 6],
    ]);
    expect(joined([])).toEqual([]);
  });
});
