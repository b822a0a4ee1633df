import type { CheckReport } from "../../api/types";

type Coverage = CheckReport["coverage"];

/** Width and height of a tile, from the places that were judged; named points get a small square. */
export function gridOf(coverage: Coverage): { width: number; height: number } {
  return { width: gap(coverage.map((one) => one.x)), height: gap(coverage.map((one) => one.y)) };
}

function gap(values: number[]): number {
  const apart = [...new Set(values)].sort((a, b) => a - b);
  const gaps = apart.slice(1).map((value, index) => value - (apart[index] ?? 0));
  return gaps.length > 2 ? Math.min(...gaps) : 24;
}

/** Places spread evenly over a width, for as many frames as there are. */
export function columns(count: number, width: number): { x: (index: number) => number; each: number } {
  const each = count ? width / count : width;
  return { x: (index) => (index + 0.5) * each, each };
}
