/** Results in days, for the curve of a drill. Pure. */

export const LATEST = 24;
/** Two results of this in a row, and the next drill is suggested. */
export const GOOD = 70;
/** Results between two dates that are written, or they would run into each other. */
const APART = 5;

export interface Day {
  /** Place of its first result. */
  first: number;
  words: string;
  /** There is room for its date. */
  told: boolean;
}

/** The days that results fall on, as they are where the reader is, in order. */
export function daysOf(results: readonly { at: string }[], locale?: string): Day[] {
  const days: Day[] = [];
  let last = -Infinity;
  for (const [index, { at }] of results.entries()) {
    const words = new Date(at).toLocaleDateString(locale, { day: "numeric", month: "short" });
    if (days.at(-1)?.words === words) continue;
    const told = index - last >= APART;
    if (told) last = index;
    days.push({ first: index, words, told });
  }
  return days;
}
