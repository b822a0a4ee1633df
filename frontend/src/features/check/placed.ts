import type { CheckReport } from "../../api/types";
import type { Placed } from "../../drawing/tiles";

/** How the proof of one look lies on that of another: by the place in the whole frame, which both were cut from. */
export function placedOn(
  other: Pick<CheckReport, "origin" | "width_px">,
  here: Pick<CheckReport, "origin" | "width_px">,
): Placed {
  const times = other.width_px / here.width_px;
  const shift = (axis: 0 | 1) => (here.origin[axis] ?? 0) * times - (other.origin[axis] ?? 0);
  return { times, x: shift(0), y: shift(1) };
}
