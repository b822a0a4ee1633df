/** An unsaved draft, kept in this browser until the server has it. */

export interface Stash<T> {
  base_revision: number;
  body: T;
}

const key = (id: string) => `just-plane.unsaved.${id}`;

export function readStash<T>(id: string): Stash<T> | null {
  const text = localStorage.getItem(key(id));
  if (text === null) return null;
  try {
    const stash = JSON.parse(text) as Partial<Stash<T>>;
    return typeof stash.base_revision === "number" && stash.body ? (stash as Stash<T>) : null;
  } catch {
    return null;
  }
}

export function writeStash<T>(id: string, stash: Stash<T>) {
  try {
    localStorage.setItem(key(id), JSON.stringify(stash));
  } catch {
    // A full or forbidden browser store: the save under way is then the only copy, as it would be without a stash.
  }
}

export function clearStash(id: string) {
  localStorage.removeItem(key(id));
}
