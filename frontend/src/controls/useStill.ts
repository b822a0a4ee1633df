import { useState, useSyncExternalStore } from "react";

let isPressing = false;
const ENDS = ["pointerup", "pointercancel", "dragend"];
const listeners = new Set<() => void>();

function press(next: boolean) {
  if (isPressing === next) return;
  isPressing = next;
  listeners.forEach((told) => told());
}

function began({ button }: PointerEvent) {
  if (button === 0) press(true);
}

/** What a press does comes after it ends, and is meant for what stood there until then. */
const ended = () => setTimeout(() => press(false));

function listen(told: () => void) {
  if (listeners.size === 0) {
    window.addEventListener("pointerdown", began, true);
    for (const end of ENDS) window.addEventListener(end, ended, true);
  }
  listeners.add(told);
  return () => {
    listeners.delete(told);
    if (listeners.size > 0) return;
    window.removeEventListener("pointerdown", began, true);
    for (const end of ENDS) window.removeEventListener(end, ended, true);
    isPressing = false;
  };
}

/**
 * The value; while something is pressed the one from before. A list that is asked for anew as its window is come back to
 * (often by that very press) would otherwise put another line under the finger before it is lifted.
 */
export function useStill<T>(value: T): T {
  const pressing = useSyncExternalStore(listen, () => isPressing);
  const [still, setStill] = useState(value);
  if (!pressing && still !== value) setStill(value);
  return pressing ? still : value;
}
