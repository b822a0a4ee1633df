import { useEffect, useRef, useState } from "react";
import type { ViewAsked } from "../../api/types";

const REST_MS = 150;

/** The live picture by pull: one request under way, one waiting, the newest replaces it. Two levels of blur while
 * something moves, all of them at rest. */
export function useView(asked: ViewAsked | null): { src: string | null; lost: boolean } {
  const [src, setSrc] = useState<string | null>(null);
  const [lost, setLost] = useState(false);
  const waiting = useRef<ViewAsked | null>(null);
  const busy = useRef(false);
  const shown = useRef<string | null>(null);
  const key = asked ? JSON.stringify(asked) : "";

  useEffect(() => {
    if (!key) return;
    const wanted = JSON.parse(key) as ViewAsked;
    const pump = async () => {
      if (busy.current) return;
      busy.current = true;
      while (waiting.current) {
        const next = waiting.current;
        waiting.current = null;
        try {
          const answer = await fetch("/api/view", {
            method: "POST",
            headers: { "Content-Type": "application/json" },
            body: JSON.stringify(next),
          });
          if (!answer.ok) throw new Error(String(answer.status));
          const fresh = URL.createObjectURL(await answer.blob());
          if (shown.current) URL.revokeObjectURL(shown.current);
          shown.current = fresh;
          setSrc(fresh);
          setLost(false);
        } catch {
          setLost(true);
        }
      }
      busy.current = false;
    };
    waiting.current = { ...wanted, moving: true };
    void pump();
    const rest = setTimeout(() => {
      waiting.current = { ...wanted, moving: false };
      void pump();
    }, REST_MS);
    return () => clearTimeout(rest);
  }, [key]);

  useEffect(
    () => () => {
      if (shown.current) URL.revokeObjectURL(shown.current);
    },
    [],
  );
  return { src, lost };
}
