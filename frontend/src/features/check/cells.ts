/** Runs of cells of a row whose value reaches a bound: fewer rectangles than cells. */
export function cellsOver(
  values: readonly number[],
  across: number,
  from: number,
): { column: number; row: number; cells: number }[] {
  const found: { column: number; row: number; cells: number }[] = [];
  let run: { column: number; row: number; cells: number } | null = null;
  for (const [index, value] of values.entries()) {
    const column = index % across;
    if (value < from) run = null;
    else if (run && column > 0) run.cells++;
    else found.push((run = { column, row: Math.floor(index / across), cells: 1 }));
  }
  return found;
}

/** Share of cells that reach a bound. */
export const shareOver = (values: readonly number[], from: number) =>
  values.length ? values.filter((value) => value >= from).length / values.length : 0;
