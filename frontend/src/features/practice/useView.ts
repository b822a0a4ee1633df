import { useEffect, useRef, useState } from "react";
import type { ViewAsked } from "../../api/types";
import { puller } from "./pull";

const REST_MS = 150;

/** The live picture. Two levels of blur while something moves, all of them at rest. */
export function useView(asked: ViewAsked | null): { src: string | null; lost: boolean } {
  const [src, setSrc] = useState<string | null>(null);
  const [lost, setLost] = useState(false);
  const pull = useRef<ReturnType<typeof puller> | null>(null);
  const key = asked ? JSON.stringify(asked) : "";

  useEffect(() => {
    const made = puller(
      (pulled) => {
        setSrc(pulled.src);
        setLost(false);
      },
      () => setLost(true),
    );
    pull.current = made;
    return () => made.end();
  }, []);

  useEffect(() => {
    if (!key) return;
    const wanted = JSON.parse(key) as ViewAsked;
    pull.current?.ask({ ...wanted, moving: true });
    const rest = setTimeout(() => pull.current?.ask({ ...wanted, moving: false }), REST_MS);
    return () => clearTimeout(rest);
  }, [key]);
  return { src, lost };
}
