import { expect, it } from "vitest";
import type { Gear } from "../../api/types";
import { inShort } from "./inShort";

const short = (gear: Record<string, unknown>, units: "mm" | "in" = "mm") =>
  inShort(gear as unknown as Gear, units);

it.each<[Record<string, unknown>, string]>([
  [
    { kind: "body", sensor_width_mm: 36, sensor_height_mm: 24, pixels_across: 8256, crop_modes: [] },
    "36 × 24 mm, 8256 px",
  ],
  [
    {
      kind: "lens",
      widest_f_number: 2.8,
      narrowest_f_number: 32,
      closest_magnification: 1,
      tilt_deg: 8,
      thread_mm: 72,
    },
    "f/2.8 to f/32, up to 1×, tilts 8°, thread 72",
  ],
  [
    {
      kind: "zoom",
      short: { focal_length_mm: 24, closest_magnification: 0.17 },
      long: { focal_length_mm: 70, closest_magnification: 0.3 },
    },
    "24 mm to 70 mm, up to 0.3×",
  ],
  [
    {
      kind: "objective",
      magnification: 10,
      numerical_aperture: 0.28,
      correction: "infinity",
      reference_focal_length_mm: 200,
    },
    "10×, NA 0.28, for a 200 mm lens",
  ],
  [
    { kind: "objective", magnification: 4, numerical_aperture: 0.1, correction: "finite" },
    "4×, NA 0.1, finite",
  ],
  [{ kind: "tube", length_mm: 36, contacts: false, carries_g: 500 }, "36 mm, no contacts, carries 0.5 kg"],
  [{ kind: "tube", length_mm: 12 }, "12 mm"],
  [{ kind: "bellows", shortest_mm: 40, longest_mm: 150 }, "40 mm to 150 mm"],
  [{ kind: "converter", factor: 1.4, reaches_in: true }, "1.4×, reaches in"],
  [{ kind: "close_up", dioptres: 3, thread_mm: 52 }, "+3, thread 52"],
  [{ kind: "step_ring", lens_thread_mm: 49, front_thread_mm: 52 }, "49 to 52"],
  [{ kind: "reversing_ring", thread_mm: 52, thickness_mm: 7 }, "thread 52, 7 mm thick"],
  [{ kind: "coupling_ring", lens_thread_mm: 67, front_thread_mm: 49 }, "67 to 49"],
  [
    { kind: "rail", driven: "motor", travel_mm: 100, smallest_step_mm: 0.001 },
    "motor, 100 mm travel, steps of 1 µm",
  ],
  [{ kind: "rail", travel_mm: 80 }, "hand, 80 mm travel"],
  [{ kind: "light", hot: true }, "steady, hot"],
  [{ kind: "diffuser", width_mm: 400, height_mm: 300 }, "400 × 300 mm, can burn"],
  [{ kind: "support", carries_g: 6000 }, "carries 6 kg"],
  [{ kind: "support" }, ""],
])("%j in one line", (gear, line) => expect(short(gear)).toBe(line));

it("a measured lens says that it is", () => {
  const lens = { kind: "lens", widest_f_number: 2, narrowest_f_number: 16, closest_magnification: 0.2 };
  expect(short({ ...lens, measured_focal_length_mm: 51 })).toContain("measured");
  expect(short(lens)).not.toContain("measured");
});

it("lengths are in the unit asked", () => {
  expect(short({ kind: "tube", length_mm: 25.4 }, "in")).toBe("1 in");
});
