import { useEffect, type RefObject } from "react";

let last: Element | null = null;
if (typeof document !== "undefined") {
  document.addEventListener("focusin", (event) => {
    last = event.target as Element;
  });
}

/** Takes the focus on when what had it went away as this came: by keyboard alone one goes on from there. */
export function useHeir(ref: RefObject<HTMLElement | null>) {
  useEffect(() => {
    if (document.activeElement === document.body && last !== null && !last.isConnected)
      ref.current?.focus({ preventScroll: true });
  }, [ref]);
}
