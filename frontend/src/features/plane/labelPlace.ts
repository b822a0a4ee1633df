/** Room that a name takes to either side of its mark, and above it, px. */
const BESIDE = 72;
const ABOVE = 36;
/** Of the drawing's sides, that a name keeps away, px. */
const INSIDE = 6;

/** Where the name of a mark is written: above it, or below at the drawing's top; inward at its sides. */
export function labelPlace(x: number, y: number, width: number) {
  const under = y < ABOVE ? { y: 34 } : { y: -20 };
  if (x < BESIDE) return { ...under, x: Math.max(-14, INSIDE - x), textAnchor: "start" as const };
  if (x > width - BESIDE)
    return { ...under, x: Math.min(14, width - INSIDE - x), textAnchor: "end" as const };
  return { ...under, x: 0, textAnchor: "middle" as const };
}
