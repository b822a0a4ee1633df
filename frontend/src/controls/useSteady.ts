import { useCallback, useLayoutEffect, useRef } from "react";

/**
 * A function that stays the same one while what it does follows the last drawing. For what is handed to parts that are
 * drawn anew only when something they show has changed; to be called by events, not while drawing.
 */
export function useSteady<Given extends unknown[], Back>(
  work: (...given: Given) => Back,
): (...given: Given) => Back {
  const latest = useRef(work);
  useLayoutEffect(() => {
    latest.current = work;
  });
  return useCallback((...given: Given) => latest.current(...given), []);
}
