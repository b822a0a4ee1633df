import { useEffect, useRef } from "react";

/** Ctrl-Z, Ctrl-Shift-Z and Ctrl-Y on the kit, outside its fields. */
export function useKitKeys(editing: { undo: () => void; redo: () => void }) {
  const latest = useRef(editing);
  useEffect(() => {
    latest.current = editing;
  });
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const typing = (event.target as HTMLElement).matches(
        "input:not([type=checkbox]):not([type=radio]), textarea",
      );
      if (!(event.ctrlKey || event.metaKey) || typing) return;
      const key = event.key.toLowerCase();
      if (key !== "z" && key !== "y") return;
      event.preventDefault();
      if (key === "y" || event.shiftKey) latest.current.redo();
      else latest.current.undo();
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, []);
}
