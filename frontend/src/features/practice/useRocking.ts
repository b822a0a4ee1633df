import { useEffect, useRef, useState } from "react";
import type { DrillSetting, Hold, SubjectMoves, ViewAsked } from "../../api/types";
import { momentOf } from "./hand";
import { puller } from "./pull";

const START: DrillSetting = { focus: 0, tilt: 0, turn: 0, stop: 2, rail: 0 };

export interface Rocked {
  slower: number;
  hold: Hold;
  /** Of one's own hands, mm; null: as it is held. */
  sway_mm: number | null;
  subject: SubjectMoves;
}

/** What the camera shows while the hand carries it: frame after frame, as fast as they come, each with its own time. */
export function useRocking(seed: number, { slower, hold, sway_mm, subject }: Rocked, running: boolean) {
  const [src, setSrc] = useState<string | null>(null);
  const [lost, setLost] = useState(false);
  const drawn = useRef<{ t: number; at: number } | null>(null);
  useEffect(() => {
    if (!running) return;
    const began = performance.now();
    let frame = 0;
    // The next is asked for as soon as one has come; on every frame of the screen too, should none be under way.
    const pull = puller(
      (pulled) => {
        setSrc(pulled.src);
        setLost(false);
        drawn.current = { t: pulled.asked.t, at: performance.now() };
        next();
      },
      () => setLost(true),
    );
    const next = () => {
      if (!document.hidden) {
        const asked: ViewAsked = {
          kind: "rock",
          seed,
          own: null,
          setting: START,
          magnified: null,
          marks: false,
          moving: true,
          truth: false,
          t: (performance.now() - began) / 1000,
          slower,
          hold,
          sway_mm,
          subject,
        };
        pull.ask(asked);
      }
    };
    const ask = () => {
      if (!pull.isBusy()) next();
      frame = requestAnimationFrame(ask);
    };
    frame = requestAnimationFrame(ask);
    return () => {
      cancelAnimationFrame(frame);
      pull.end();
    };
  }, [seed, slower, hold, sway_mm, subject, running]);
  /** The frame's own time, and the time since it was drawn: a slow machine or line costs nothing. */
  const now = () => momentOf(drawn.current, performance.now());
  return { src, lost, now };
}
