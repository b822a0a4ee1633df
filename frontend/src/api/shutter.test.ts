import { describe, expect, it } from "vitest";
import { shutter } from "./shutter";

describe("shutter times", () => {
  it("are spoken as cameras mark them", () => {
    expect([1 / 59, 0.77, 1 / 130, 29].map(shutter)).toEqual(["1/60 s", "0.8 s", "1/125 s", "30 s"]);
  });
  it("past the marks are any time", () => {
    expect(shutter(95)).toBe("1 min 35 s");
  });
});
