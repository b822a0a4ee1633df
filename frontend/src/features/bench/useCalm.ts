import { useEffect, useRef, useState } from "react";

/**
 * A value that follows another at most every `everyMs`, and always arrives. For what may lag while something is
 * dragged: dozens of fields drawn anew at every pointer move would hold up the drawing itself.
 */
export function useCalm<T>(value: T, everyMs: number): T {
  const [calm, setCalm] = useState(value);
  const last = useRef(0);
  useEffect(() => {
    const wait = last.current + everyMs - performance.now();
    const take = () => {
      last.current = performance.now();
      setCalm(value);
    };
    const timer = setTimeout(take, Math.max(wait, 0));
    return () => clearTimeout(timer);
  }, [value, everyMs]);
  return calm;
}
