/** Lines of equal value over a grid of numbers: pixel geometry only. */

export type Segment = [number, number, number, number];

/**
 * Contours by marching squares. `values` stand at the middles of the cells of a `columns` by `rows` grid, row by row
 * from the top left; segments come back in shares of the whole width and height, 0 to 1.
 */
export function contours(values: readonly number[], columns: number, rows: number, level: number): Segment[] {
  const at = (column: number, row: number) => (values[row * columns + column] as number) - level;
  const x = (column: number) => (column + 0.5) / columns;
  const y = (row: number) => (row + 0.5) / rows;
  const found: Segment[] = [];
  for (let row = 0; row + 1 < rows; row++) {
    for (let column = 0; column + 1 < columns; column++) {
      // A cell with a corner that is not known has no line.
      const corners = [
        at(column, row),
        at(column + 1, row),
        at(column + 1, row + 1),
        at(column, row + 1),
      ] as const;
      if (corners.some((value) => !Number.isFinite(value))) continue;
      const places: [number, number][] = [
        [x(column), y(row)],
        [x(column + 1), y(row)],
        [x(column + 1), y(row + 1)],
        [x(column), y(row + 1)],
      ];
      const crossings: [number, number][] = [];
      for (let side = 0; side < 4; side++) {
        const from = corners[side] as number;
        const to = corners[(side + 1) % 4] as number;
        if (from < 0 === to < 0) continue;
        const share = from / (from - to);
        const [x1, y1] = places[side] as [number, number];
        const [x2, y2] = places[(side + 1) % 4] as [number, number];
        crossings.push([x1 + share * (x2 - x1), y1 + share * (y2 - y1)]);
      }
      for (let pair = 0; pair + 1 < crossings.length; pair += 2) {
        const [a, b] = [crossings[pair], crossings[pair + 1]] as [[number, number], [number, number]];
        found.push([...a, ...b]);
      }
    }
  }
  return found;
}

/** Segments as one path, for a drawing of this size. */
export function pathOf(segments: readonly Segment[], width: number, height: number): string {
  return segments
    .map(
      ([x1, y1, x2, y2]) =>
        `M${(x1 * width).toFixed(1)} ${(y1 * height).toFixed(1)}L${(x2 * width).toFixed(1)} ${(y2 * height).toFixed(1)}`,
    )
    .join("");
}

/** Round levels that cut a range into about so many parts, and nothing at its very ends. */
export function levels(low: number, high: number, about: number): number[] {
  const each = (high - low) / about;
  if (!(each > 0) || !Number.isFinite(each)) return [];
  const power = 10 ** Math.floor(Math.log10(each));
  const step = power * ([1, 2, 5, 10].find((times) => times * power >= each) ?? 10);
  const found: number[] = [];
  for (let count = Math.floor(low / step) + 1; count * step < high; count++) {
    found.push(Number((count * step).toPrecision(12)));
  }
  return found;
}
