/** Ways in the order in which they are shown: what can be had first, the best first. */
import type { WayAnswer } from "../api/types";

export function inOrder(ways: readonly WayAnswer[]): { possible: WayAnswer[]; impossible: WayAnswer[] } {
  const possible = ways.filter((way) => way.frames > 0);
  return {
    possible: [...possible].sort((one, other) => one.rank - other.rank),
    impossible: ways.filter((way) => way.frames === 0),
  };
}
