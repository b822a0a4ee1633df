import { useEffect, useRef } from "react";

interface Shortcuts {
  undo: () => void;
  redo: () => void;
  nextWay: () => void;
  station: (number: number) => void;
}

/** Keys of the bench: 1 to 9 stations, W next way, Ctrl-Z and Ctrl-Shift-Z (or Ctrl-Y) undo and redo. */
export function useShortcuts(shortcuts: Shortcuts) {
  const latest = useRef(shortcuts);
  useEffect(() => {
    latest.current = shortcuts;
  });
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      // The hidden inputs of sliders take arrows only; letters and digits typed there are for the bench.
      const typing = target.matches(
        "input:not([type=range]):not([type=radio]):not([type=checkbox]), textarea",
      );
      const control = event.ctrlKey || event.metaKey;
      if (control && event.key.toLowerCase() === "z" && !typing) {
        event.preventDefault();
        if (event.shiftKey) latest.current.redo();
        else latest.current.undo();
      } else if (control && event.key.toLowerCase() === "y" && !typing) {
        event.preventDefault();
        latest.current.redo();
      } else if (!control && !event.altKey && !typing) {
        if (/^[1-9]$/.test(event.key)) latest.current.station(Number(event.key));
        else if (event.key.toLowerCase() === "w") latest.current.nextWay();
      }
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, []);
}
