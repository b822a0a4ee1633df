import { describe, expect, it } from "vitest";
import type { Plan, Shot } from "../api/types";
import { stopBeside, stopReaching } from "./stopChoice";

const stop = (f_number: number, depth_of_field_mm: number) => ({
  f_number,
  effective_f_number: f_number * 1.5,
  depth_of_field_mm,
});
// Depth grows as the lens is stopped down, until diffraction takes it back.
const plan = {
  aperture: {
    f_number: 5.6,
    stops: [stop(2.8, 1), stop(4, 1.4), stop(5.6, 2), stop(8, 2.6), stop(11, 1.2), stop(16, 0)],
  },
} as unknown as Plan;
const shot = (reading: "marked" | "effective") => ({ aperture: { f_number: 5.6, reading } }) as Shot;

describe("dragging the end of the sharp band", () => {
  it.each([
    [0.1, 2.8],
    [0.72, 4],
    [1.0, 5.6],
    [99, 8],
  ])("to %f mm behind the focus sets f/%f", (reach, expected) =>
    expect(stopReaching(plan, shot("marked"), reach)).toBe(expected),
  );

  it("never means a stop at which diffraction takes depth back", () =>
    expect([2.8, 4]).toContain(stopReaching(plan, shot("marked"), 0.6)));

  it("speaks in the number that the camera shows", () =>
    expect(stopReaching(plan, shot("effective"), 1.0)).toBeCloseTo(8.4));

  it("changes nothing where there is no depth at any stop", () =>
    expect(stopReaching({ aperture: { stops: [stop(16, 0)] } } as unknown as Plan, shot("marked"), 1)).toBe(
      5.6,
    ));
});

describe("arrow keys on it", () => {
  it.each([
    [1, 8],
    [-1, 4],
    [3, 16],
    [9, 16],
    [-9, 2.8],
  ])("%i clicks set f/%f", (clicks, expected) =>
    expect(stopBeside(plan, shot("marked"), clicks)).toBe(expected),
  );
});
