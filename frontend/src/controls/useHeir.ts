import { useEffect, type RefObject } from "react";

let last: Element | null = null;
let byKeyboard = false;
if (typeof document !== "undefined") {
  document.addEventListener("focusin", (event) => {
    last = event.target as Element;
  });
  document.addEventListener("keydown", () => (byKeyboard = true), { capture: true });
  document.addEventListener("pointerdown", () => (byKeyboard = false), { capture: true });
}

/**
 * Takes the focus on when what had it went away as this came: by keyboard alone one goes on from there. A box for
 * words takes it from the keyboard `only`: after a finger it would bring up the keys of the screen unasked.
 */
export function useHeir(ref: RefObject<HTMLElement | null>, only?: "keyboard") {
  useEffect(() => {
    if (document.activeElement !== document.body || last === null || last.isConnected) return;
    if (only !== "keyboard" || byKeyboard) ref.current?.focus({ preventScroll: true });
  }, [ref, only]);
}
