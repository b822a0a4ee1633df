/** An unsaved draft, kept in this browser until the server has it. */
import type { Shot } from "../../api/types";

interface Stash {
  base_revision: number;
  shot: Shot;
}

const key = (shotId: string) => `just-plane.unsaved.${shotId}`;

export function readStash(shotId: string): Stash | null {
  const text = localStorage.getItem(key(shotId));
  if (text === null) return null;
  try {
    const stash = JSON.parse(text) as Partial<Stash>;
    return typeof stash.base_revision === "number" && stash.shot ? (stash as Stash) : null;
  } catch {
    return null;
  }
}

export function writeStash(shotId: string, stash: Stash) {
  try {
    localStorage.setItem(key(shotId), JSON.stringify(stash));
  } catch {
    // A full or forbidden browser store: the save under way is then the only copy, as it would be without a stash.
  }
}

export function clearStash(shotId: string) {
  localStorage.removeItem(key(shotId));
}
