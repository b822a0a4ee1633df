/** What a rig gives, in words and signed figures. */
import type { Reach } from "../../api/types";
import type { Units } from "../../units/units";
import { figures, length, times } from "../../units/format";

type Range = Pick<
  Reach,
  "is_fixed" | "smallest_magnification" | "largest_magnification" | "farthest_focus_mm"
>;

export function reachWords(reach: Range, units: Units): string {
  if (reach.is_fixed) return "This rig gives this one size.";
  const from = reach.smallest_magnification === 0 ? "infinity" : times(reach.smallest_magnification);
  const far =
    reach.farthest_focus_mm === null
      ? ""
      : `, and focuses no farther than ${length(reach.farthest_focus_mm, units)} from the sensor`;
  return `This rig gives ${from} to ${times(reach.largest_magnification)}${far}.`;
}

/** A difference with its sign; what rounds to nothing is said to be about nothing. */
export function signed(value: number, words: (value: number) => string): string {
  const text = words(Math.abs(value));
  return Number(figures(value, 3)) === 0 ? `±${words(0)}` : `${value < 0 ? "−" : "+"}${text}`;
}
