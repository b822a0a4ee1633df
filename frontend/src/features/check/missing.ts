import type { CheckReport, Run } from "../../api/types";

/** Frames stand at one place when they are no farther apart, mm. */
const SAME_MM = 0.005;

/** What a look found missing, by how far the run has come with it since. */
export interface Missing {
  /** Not asked of the run yet: where to focus, mm behind the nearest point. */
  toAsk: number[];
  /** In the run, still to be taken. */
  toCome: number;
  /** Taken since: another look holds them. */
  came: number;
}

export function missing(
  report: Pick<CheckReport, "gaps" | "frames">,
  run: Pick<Run, "plan" | "files" | "times_taken" | "skipped">,
): Missing {
  const looked = new Set(report.frames.map(({ file }) => file));
  // Frames counted by hand have no files: whether some came since is told by how many there are.
  const more = run.times_taken.filter((times) => times > 0).length > report.frames.length;
  const fresh = run.plan.steps.flatMap(({ focus_mm, added }, index) => {
    const file = run.files[index] ?? null;
    const taken = (run.times_taken[index] ?? 0) > 0;
    // A frame of the plan that was not taken is not what was asked for: the run may have been stopped before it.
    const isFresh = taken ? (file === null ? more : !looked.has(file)) : added;
    return isFresh && !run.skipped.includes(index) ? [{ focus_mm, taken }] : [];
  });
  const found: Missing = { toAsk: [], toCome: 0, came: 0 };
  for (const focus of report.gaps.flatMap(({ focuses_mm }) => focuses_mm)) {
    const there = fresh.filter(({ focus_mm }) => Math.abs(focus_mm - focus) <= SAME_MM);
    if (there.some(({ taken }) => !taken)) found.toCome += 1;
    else if (there.length) found.came += 1;
    else found.toAsk.push(focus);
  }
  return found;
}
