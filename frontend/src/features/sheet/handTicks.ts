import type { WayAnswer } from "../../api/types";
import { length } from "../../units/format";
import type { Units } from "../../units/units";

/** What to do for a series from the hand, in sentences: lean in, and how often. */
export function handTicks(way: WayAnswer, units: Units): string[] {
  const { stack } = way;
  if (!stack) return [];
  const often =
    stack.series === null
      ? "More than six series would be needed for nearly all: take what there is time for."
      : stack.series === 1
        ? "One series is enough; a second one makes it sure."
        : `Do it ${stack.series} times, and merge them all together.`;
  return [
    "Stabiliser on; set the ring for the size and leave it alone.",
    `Sharp ${length(stack.first_mm, units)} behind the nearest point, hold the release down and lean in slowly: a frame every ${length(stack.step_mm, units)}, ${way.frames} of them.`,
    often,
  ];
}
