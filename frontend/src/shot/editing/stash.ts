/** An unsaved draft, kept in this browser until the server has it. */

export interface Stash<T> {
  base_revision: number;
  body: T;
}

const key = (id: string) => `just-plane.unsaved.${id}`;

/**
 * The draft left for a document, or null. What an older form of the program did not write yet is taken from `whole`, the
 * document as it is kept.
 */
export function readStash<T>(id: string, whole: T): Stash<T> | null {
  const text = localStorage.getItem(key(id));
  if (text === null) return null;
  try {
    const stash = JSON.parse(text) as Partial<Stash<T>>;
    if (typeof stash.base_revision !== "number" || !stash.body) return null;
    return { base_revision: stash.base_revision, body: filled(stash.body, whole) };
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

/** A value with the members that it lacks taken from another of its kind; lists are left as they are. */
function filled<T>(value: T, whole: unknown): T {
  if (!isRecord(value) || !isRecord(whole)) return value;
  const members = Object.entries(whole).map(([name, other]) => [
    name,
    name in value ? filled(value[name], other) : other,
  ]);
  return { ...value, ...(Object.fromEntries(members) as Partial<T>) };
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
