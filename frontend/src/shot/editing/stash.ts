/**
 * Unsaved drafts, kept in this browser until the server has them: one a window and document, cleared only by the window
 * that wrote it. A window that is open holds a lock by its name; a draft whose window holds none was left behind.
 */
import { keysFrom, store, stored, unstore } from "../../look/storage";

export interface Stash<T> {
  base_revision: number;
  body: T;
}

/** A draft that a window left behind when it was closed. */
export interface Left<T> extends Stash<T> {
  key: string;
  /** ISO 8601; empty where an older form of the program did not write it. */
  at: string;
}

const START = "just-plane.unsaved.";
const LOCK = "just-plane.window.";
/** Without locks a draft untouched for so long is taken as left behind. */
const QUIET_MS = 30_000;

const WINDOW = Math.random().toString(36).slice(2, 10);
const keyOf = (id: string) => `${START}${id}.${WINDOW}`;

let held = false;

/** Says to other windows that this one is open, for as long as it is. */
function holdLock() {
  if (held || !("locks" in navigator)) return;
  held = true;
  void navigator.locks.request(LOCK + WINDOW, () => new Promise(() => undefined)).catch(() => undefined);
}

export function writeStash<T>(id: string, stash: Stash<T>) {
  holdLock();
  store("local", keyOf(id), JSON.stringify({ ...stash, at: new Date().toISOString() }));
}

/** This window's own. */
export function clearStash(id: string) {
  unstore("local", keyOf(id));
}

/** One that was left behind and is taken up or thrown away. */
export function dropLeft(key: string) {
  unstore("local", key);
}

/**
 * Drafts of a document that closed windows left behind, the newest first. What an older form of the program did not write
 * yet is taken from `whole`, the document as it is kept.
 */
export async function leftBehind<T>(id: string, whole: T): Promise<Left<T>[]> {
  const open = await openWindows();
  const left: Left<T>[] = [];
  for (const key of keysFrom("local", START + id)) {
    const window = key.slice((START + id).length + 1);
    const own = key === START + id || key.startsWith(`${START}${id}.`);
    if (!own || key === keyOf(id) || (open?.has(window) ?? false)) continue;
    const stash = read(key, whole);
    if (stash === null) continue;
    if (open === null && stash.at && Date.now() - Date.parse(stash.at) < QUIET_MS) continue;
    left.push(stash);
  }
  return left.sort((one, other) => other.at.localeCompare(one.at));
}

/** Names of the windows that are open; null where the browser does not tell. */
async function openWindows(): Promise<Set<string> | null> {
  if (!("locks" in navigator)) return null;
  try {
    const { held: locks = [] } = await navigator.locks.query();
    return new Set(locks.map((lock) => (lock.name ?? "").replace(LOCK, "")));
  } catch {
    return null;
  }
}

function read<T>(key: string, whole: T): Left<T> | null {
  const text = stored("local", key);
  if (text === null) return null;
  try {
    const stash = JSON.parse(text) as Partial<Left<T>>;
    if (typeof stash.base_revision !== "number" || !stash.body) return null;
    return {
      key,
      at: stash.at ?? "",
      base_revision: stash.base_revision,
      body: filled(stash.body, whole),
    };
  } catch {
    return null;
  }
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
