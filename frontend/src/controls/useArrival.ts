import { useEffect } from "react";
import { useLocation } from "react-router";

/** Where the window was opened or loaded anew: there the browser begins with its own first key. */
const OPENED_AT = (window.history.state as { key?: string } | null)?.key ?? "default";

/**
 * A screen is come to: the window has its name, and keys go on in it. What was pressed to come here is gone with the
 * screen before, and would leave the next Tab anywhere; whatever has the keys keeps them.
 *
 * @param title what is open, for the window's title
 * @param at what the screen shows, where that can change; null while nothing is there yet
 */
export function useArrival(title: string, at: string | null = "") {
  const { key } = useLocation();
  useEffect(() => {
    document.title = `${title} · Just Plane`;
  }, [title]);
  useEffect(() => {
    const main = document.querySelector("main");
    if (at === null || main === null || key === OPENED_AT || document.activeElement !== document.body) return;
    main.tabIndex = -1;
    main.focus({ preventScroll: true });
  }, [at, key]);
}
