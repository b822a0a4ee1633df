import { useLayoutEffect, useMemo, useRef, type KeyboardEvent, type PointerEvent } from "react";
import type { PointAnswer } from "../../api/types";

/** What a hand does to the mark of a point. */
export interface Hands {
  down: (point: PointAnswer, event: PointerEvent<SVGGElement>) => void;
  move: (point: PointAnswer, event: PointerEvent<SVGGElement>) => void;
  up: (point: PointAnswer, event: PointerEvent<SVGGElement>) => void;
  key: (point: PointAnswer, event: KeyboardEvent) => void;
  focus: (point: PointAnswer) => void;
}

/** One object for all marks, the same from drawing to drawing, so that marks that did not change are not drawn anew. */
export function useHands(hands: Hands): Hands {
  const latest = useRef(hands);
  useLayoutEffect(() => {
    latest.current = hands;
  });
  return useMemo(
    () => ({
      down: (point, event) => latest.current.down(point, event),
      move: (point, event) => latest.current.move(point, event),
      up: (point, event) => latest.current.up(point, event),
      key: (point, event) => latest.current.key(point, event),
      focus: (point) => latest.current.focus(point),
    }),
    [],
  );
}
