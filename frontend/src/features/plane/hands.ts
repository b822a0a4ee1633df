import { useMemo, type KeyboardEvent, type PointerEvent } from "react";
import type { PointAnswer } from "../../api/types";
import { useSteady } from "../../controls/useSteady";

/** What a hand does to the mark of a point. */
export interface Hands {
  down: (point: PointAnswer, event: PointerEvent<SVGGElement>) => void;
  move: (point: PointAnswer, event: PointerEvent<SVGGElement>) => void;
  up: (point: PointAnswer, event: PointerEvent<SVGGElement>) => void;
  /** The pointer was taken away: where it is now says nothing. */
  cancel: (point: PointAnswer) => void;
  key: (point: PointAnswer, event: KeyboardEvent) => void;
  focus: (point: PointAnswer) => void;
}

/** One object for all marks, the same from drawing to drawing, so that marks that did not change are not drawn anew. */
export function useHands(hands: Hands): Hands {
  const down = useSteady(hands.down);
  const move = useSteady(hands.move);
  const up = useSteady(hands.up);
  const cancel = useSteady(hands.cancel);
  const key = useSteady(hands.key);
  const focus = useSteady(hands.focus);
  return useMemo(() => ({ down, move, up, cancel, key, focus }), [down, move, up, cancel, key, focus]);
}
