/** The browser's stores, which may be full, forbidden or not there: what cannot be kept is not, and nothing fails. */

export type Which = "local" | "session";

function storeOf(which: Which): Storage | null {
  try {
    return which === "local" ? localStorage : sessionStorage;
  } catch {
    return null;
  }
}

export function stored(which: Which, key: string): string | null {
  try {
    return storeOf(which)?.getItem(key) ?? null;
  } catch {
    return null;
  }
}

/** Whether it could be kept. */
export function store(which: Which, key: string, text: string): boolean {
  try {
    const there = storeOf(which);
    there?.setItem(key, text);
    return there !== null;
  } catch {
    return false;
  }
}

export function unstore(which: Which, key: string) {
  try {
    storeOf(which)?.removeItem(key);
  } catch {
    // Nothing was kept there either.
  }
}

/** Keys that begin so. */
export function keysFrom(which: Which, start: string): string[] {
  try {
    const there = storeOf(which);
    if (there === null) return [];
    return Array.from({ length: there.length }, (_, index) => there.key(index) ?? "").filter((key) =>
      key.startsWith(start),
    );
  } catch {
    return [];
  }
}
