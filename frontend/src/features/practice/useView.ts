import { useEffect, useRef, useState } from "react";
import type { ViewAsked } from "../../api/types";
import { puller } from "./pull";

const REST_MS = 150;
const AGAIN_MS = 1500;

export interface View {
  src: string | null;
  /** No picture comes. */
  lost: boolean;
  /** What is shown is not yet what was asked for, in full. */
  busy: boolean;
}

/** The live picture. Two levels of blur while something moves, all of them at rest. */
export function useView(asked: ViewAsked | null): View {
  const [shown, setShown] = useState<{ src: string; key: string } | null>(null);
  const [lost, setLost] = useState(false);
  const pull = useRef<ReturnType<typeof puller> | null>(null);
  const key = asked ? JSON.stringify(asked) : "";

  useEffect(() => {
    const made = puller(
      (pulled) => {
        setShown({ src: pulled.src, key: JSON.stringify(pulled.asked) });
        setLost(false);
      },
      () => setLost(true),
    );
    pull.current = made;
    return () => made.end();
  }, []);

  // A server that was away is asked again until it is back.
  useEffect(() => {
    if (!lost || !key) return;
    const again = setInterval(() => pull.current?.ask(JSON.parse(key) as ViewAsked), AGAIN_MS);
    return () => clearInterval(again);
  }, [lost, key]);

  useEffect(() => {
    if (!key) return;
    const wanted = JSON.parse(key) as ViewAsked;
    pull.current?.ask({ ...wanted, moving: true });
    const rest = setTimeout(() => pull.current?.ask(wanted), REST_MS);
    return () => clearTimeout(rest);
  }, [key]);
  return { src: shown?.src ?? null, lost, busy: shown?.key !== key };
}
