/**
 * Which changes mean one thing: those of one field in a row, such as presses of an arrow or typing, become one version,
 * so that undo goes by meaning.
 */

/** Longest pause between two changes of a field that still mean one thing. */
export const PAUSE_MS = 2500;

interface Change {
  /** The one field that it changed; null: several, or none. */
  field: string | null;
  at: number;
}

export interface Meaning {
  /** The change that was sent last. */
  last: Change | null;
  /** What has changed since, and whether it goes on with the last. */
  pending: (Change & { continues: boolean }) | null;
}

export const NOTHING_YET: Meaning = { last: null, pending: null };

/** After a change of a field. */
export function noted(meaning: Meaning, field: string | null, at: number): Meaning {
  const { last, pending } = meaning;
  if (pending) {
    const same = field !== null && field === pending.field;
    return { last, pending: { field: same ? field : null, at, continues: pending.continues && same } };
  }
  const continues = field !== null && last?.field === field && at - last.at < PAUSE_MS;
  return { last, pending: { field, at, continues } };
}

/** After what is pending was sent. */
export function sent(meaning: Meaning): Meaning {
  return { last: meaning.pending ?? meaning.last, pending: null };
}

/** An item of a list, as a place to which a change can belong. */
interface Item {
  at: string;
  before: unknown;
  after: unknown;
}

/**
 * The one place in which two documents differ, as a JSON pointer; null where they differ in several, or in none.
 *
 * Several numbers of one item of a list are one place, the item: what moves a point changes where it is and how deep.
 */
export function changedField(
  before: unknown,
  after: unknown,
  at = "",
  item: Item | null = null,
): string | null {
  if (before === after) return null;
  if (!isTree(before) || !isTree(after) || Array.isArray(before) !== Array.isArray(after)) return at || "/";
  const [was, is] = [before as Record<string, unknown>, after as Record<string, unknown>];
  const names = [...new Set([...Object.keys(was), ...Object.keys(is)])].filter(
    (name) => !same(was[name], is[name]),
  );
  if (names.length > 1) return item && onlyNumbers(item.before, item.after) ? item.at : null;
  const [name] = names;
  if (name === undefined) return null;
  const place = `${at}/${name}`;
  const around = Array.isArray(after) ? { at: place, before: was[name], after: is[name] } : item;
  return changedField(was[name], is[name], place, around);
}

/** Whether two documents hold the same, whatever the order of their members. */
export function same(one: unknown, other: unknown): boolean {
  if (one === other) return true;
  if (!isTree(one) || !isTree(other) || Array.isArray(one) !== Array.isArray(other)) return false;
  const [a, b] = [one as Record<string, unknown>, other as Record<string, unknown>];
  const names = Object.keys(a);
  return names.length === Object.keys(b).length && names.every((name) => name in b && same(a[name], b[name]));
}

/** Whether two values of one shape differ in their numbers only. */
function onlyNumbers(before: unknown, after: unknown): boolean {
  if (!isTree(before) || !isTree(after))
    return before === after || (typeof before === "number" && typeof after === "number");
  const [was, is] = [before as Record<string, unknown>, after as Record<string, unknown>];
  const names = Object.keys(was);
  return (
    names.length === Object.keys(is).length &&
    names.every((name) => name in is && onlyNumbers(was[name], is[name]))
  );
}

function isTree(value: unknown): value is object {
  return typeof value === "object" && value !== null;
}
