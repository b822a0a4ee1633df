/** Pictures by pull: one request under way, one waiting, the newest replaces it. */
import type { ViewAsked } from "../../api/types";

export interface Pulled {
  src: string;
  asked: ViewAsked;
}

/** As many are kept: the page may still be about to load the one before the last. */
const KEPT = 2;
/** And the last ones so long after the end: what is on the screen then may just be loading. */
const LAST_MS = 5000;

/** Asks for pictures and tells of each that comes; `onLost` when one does not. */
export function puller(onPicture: (pulled: Pulled) => void, onLost: () => void) {
  let waiting: ViewAsked | null = null;
  let busy = false;
  const kept: string[] = [];
  const keep = (most: number) =>
    kept.splice(0, kept.length - most).forEach((src) => URL.revokeObjectURL(src));
  let over = false;

  async function pump() {
    if (busy) return;
    busy = true;
    while (waiting && !over) {
      const asked = waiting;
      waiting = null;
      try {
        const answer = await fetch("/api/view", {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify(asked),
        });
        if (!answer.ok) throw new Error(String(answer.status));
        const picture = await answer.blob();
        if (over) break;
        const src = URL.createObjectURL(picture);
        kept.push(src);
        keep(KEPT);
        onPicture({ src, asked });
      } catch {
        if (!over) onLost();
      }
    }
    busy = false;
  }

  return {
    ask(asked: ViewAsked) {
      waiting = asked;
      void pump();
    },
    isBusy: () => busy,
    end() {
      over = true;
      setTimeout(() => keep(0), LAST_MS);
    },
  };
}
