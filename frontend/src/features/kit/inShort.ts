/** A piece in one line: the numbers that tell it from its neighbours. */
import type { Gear } from "../../api/types";
import type { Units } from "../../units/units";
import { figures, length, size, stop, times } from "../../units/format";

export function inShort(gear: Gear, units: Units): string {
  const parts = facts(gear, units).filter((part): part is string => Boolean(part));
  return parts.join(", ");
}

function facts(gear: Gear, units: Units): (string | null | undefined | false)[] {
  const mm = (value: number) => length(value, units);
  const contacts = (has: boolean | undefined) => (has === false ? "no contacts" : null);
  const carries = (grams: number | null | undefined) =>
    grams ? `carries ${figures(grams / 1000, 2)} kg` : null;
  switch (gear.kind) {
    case "body":
      return [
        size(gear.sensor_width_mm, gear.sensor_height_mm, units),
        gear.pixels_across ? `${gear.pixels_across} px` : null,
        gear.crop_modes.length
          ? `${gear.crop_modes.length} crop mode${gear.crop_modes.length > 1 ? "s" : ""}`
          : null,
      ];
    case "lens":
      return [
        `${stop(gear.widest_f_number)} to ${stop(gear.narrowest_f_number)}`,
        gear.smallest_magnification
          ? `${times(gear.smallest_magnification)} to ${times(gear.closest_magnification)} only`
          : `up to ${times(gear.closest_magnification)}`,
        gear.tilt_deg ? `tilts ${figures(gear.tilt_deg)}°` : null,
        gear.shift_mm ? `shifts ${mm(gear.shift_mm)}` : null,
        gear.measured_focal_length_mm ||
        gear.measured_closest_focal_length_mm ||
        gear.measured_pupil_magnification
          ? "measured"
          : null,
        gear.thread_mm ? `thread ${figures(gear.thread_mm)}` : null,
      ];
    case "zoom": {
      const largest = Math.max(gear.short.closest_magnification ?? 0, gear.long.closest_magnification ?? 0);
      return [
        `${mm(gear.short.focal_length_mm)} to ${mm(gear.long.focal_length_mm)}`,
        largest ? `up to ${times(largest)}` : null,
      ];
    }
    case "objective":
      return [
        times(gear.magnification),
        `NA ${figures(gear.numerical_aperture)}`,
        gear.correction === "finite" ? "finite" : `for a ${mm(gear.reference_focal_length_mm)} lens`,
        gear.iris_to ? "iris" : null,
      ];
    case "tube":
      return [mm(gear.length_mm), contacts(gear.contacts), carries(gear.carries_g)];
    case "bellows":
      return [`${mm(gear.shortest_mm)} to ${mm(gear.longest_mm)}`, carries(gear.carries_g)];
    case "converter":
      return [times(gear.factor), contacts(gear.contacts), gear.reaches_in && "reaches in"];
    case "close_up":
      return [`+${figures(gear.dioptres)}`, gear.thread_mm ? `thread ${figures(gear.thread_mm)}` : null];
    case "step_ring":
      return [`${figures(gear.lens_thread_mm)} to ${figures(gear.front_thread_mm)}`];
    case "reversing_ring":
      return [`thread ${figures(gear.thread_mm)}`, `${mm(gear.thickness_mm)} thick`];
    case "coupling_ring":
      return [`${figures(gear.lens_thread_mm)} to ${figures(gear.front_thread_mm)}`];
    case "rail":
      return [
        gear.driven === "motor" ? "motor" : "hand",
        `${mm(gear.travel_mm)} travel`,
        gear.smallest_step_mm ? `steps of ${mm(gear.smallest_step_mm)}` : null,
      ];
    case "light":
      return [gear.flash ? "flash" : "steady", gear.hot ? "hot" : null];
    case "diffuser":
      return [size(gear.width_mm, gear.height_mm, units), gear.burns === false ? null : "can burn"];
    case "support":
      return [carries(gear.carries_g)];
  }
}
