/** A letter of a name, as it is drawn beside its mark, px: a little more than most are. */
const LETTER = 7;
/** Room that a name takes above its mark, px. */
const ABOVE = 36;
/** Of the drawing's sides, that a name keeps away, px. */
const INSIDE = 6;

/**
 * A name beside its mark in a drawing so wide: above it, or below at the drawing's top; moved inward at its sides, and
 * cut off where it is longer than the drawing is wide.
 */
export function labelPlace(name: string, x: number, y: number, width: number) {
  const most = Math.max(Math.floor((width - 2 * INSIDE) / LETTER), 1);
  const text = name.length > most ? `${name.slice(0, most - 1).trimEnd()}…` : name;
  const half = (text.length * LETTER) / 2;
  const middle = Math.max(Math.min(x, width - INSIDE - half), INSIDE + half);
  return { text, x: middle - x, y: y < ABOVE ? 34 : -20 };
}
