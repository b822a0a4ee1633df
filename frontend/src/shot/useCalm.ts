import { useEffect, useRef, useState } from "react";

/** The longest that a press holds a value back: a click is shorter, and whoever holds a button down waits for it. */
const PRESS_MS = 250;

/**
 * A value that follows another at most every `everyMs` (`heldMs` while the pointer is down), and always arrives. For what may lag while something is
 * dragged: dozens of fields drawn anew at every pointer move would hold up the drawing itself. It also waits while the
 * pointer is being pressed, so that nothing moves away between the press and the release.
 */
export function useCalm<T>(value: T, everyMs: number, heldMs = everyMs): T {
  const [calm, setCalm] = useState(value);
  const last = useRef(0);
  const pressed = useRef(-Infinity);
  useEffect(() => {
    const down = () => (pressed.current = performance.now());
    const up = () => (pressed.current = -Infinity);
    const options = { capture: true };
    addEventListener("pointerdown", down, options);
    addEventListener("pointerup", up, options);
    addEventListener("pointercancel", up, options);
    return () => {
      removeEventListener("pointerdown", down, options);
      removeEventListener("pointerup", up, options);
      removeEventListener("pointercancel", up, options);
    };
  }, []);
  useEffect(() => {
    let timer = 0;
    const take = () => {
      const now = performance.now();
      const pause = pressed.current > -Infinity ? heldMs : everyMs;
      const wait = Math.max(last.current + pause, pressed.current + PRESS_MS) - now;
      if (wait > 0) {
        timer = window.setTimeout(take, wait);
        return;
      }
      last.current = now;
      setCalm(value);
    };
    timer = window.setTimeout(take, Math.max(last.current + everyMs - performance.now(), 0));
    return () => clearTimeout(timer);
  }, [value, everyMs, heldMs]);
  return calm;
}
