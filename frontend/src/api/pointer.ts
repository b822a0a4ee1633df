/** A place in a document by its JSON pointer, such as `/stack/settle_s`: what stands there, and the document changed there. */

const partsOf = (pointer: string) => pointer.split("/").slice(1);

/** What stands at a place; undefined where the way there ends before it. */
export function valueAt(document: unknown, pointer: string): unknown {
  return partsOf(pointer).reduce<unknown>(
    (place, part) =>
      typeof place === "object" && place !== null ? (place as Record<string, unknown>)[part] : undefined,
    document,
  );
}

/** The document with another value at a place; everything beside the way there is shared with the one before. */
export function withValueAt<T>(document: T, pointer: string, value: unknown): T {
  return changed(document, partsOf(pointer), value) as T;
}

function changed(place: unknown, [part, ...rest]: string[], value: unknown): unknown {
  if (part === undefined) return value;
  if (Array.isArray(place)) {
    return place.map((each: unknown, index) => (index === Number(part) ? changed(each, rest, value) : each));
  }
  const members = (place ?? {}) as Record<string, unknown>;
  return { ...members, [part]: changed(members[part], rest, value) };
}
