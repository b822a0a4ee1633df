/** What a run says of itself: pure words and drawings of where it stands. */
import type { Run } from "../../api/types";
import type { Stairs } from "../../shot/Staircase";
import { decimalsFor, fixed, length } from "../../units/format";
import type { Units } from "../../units/units";

export type Step = Run["plan"]["steps"][number];

export const takenCount = (run: Run) => run.times_taken.filter((times) => times > 0).length;

export const lastTaken = (run: Run) => run.times_taken.findLastIndex((times) => times > 0);

/** The largest figure: the rail's own mark where it is known, else how far to move. */
export function figureOf(
  run: Run,
  step: Step,
  units: Units,
): { over: string; figure: string; under: string } {
  const move = moveOf(run, step);
  const moved =
    move === null ? "" : `${length(Math.abs(move), units)} ${move < 0 ? "back" : "on"} from the last`;
  if (step.mark_mm !== null) {
    return {
      over: "set the rail to",
      figure: fixed(step.mark_mm, units, decimalsFor(Math.abs(move ?? 1))),
      under: moved || "the first frame",
    };
  }
  if (move === null) return { over: "focus on", figure: "start", under: nearWords(step, units) };
  return {
    over: move < 0 ? "move back by" : "move on by",
    figure: fixed(Math.abs(move), units, decimalsFor(Math.abs(move))),
    under: nearWords(step, units),
  };
}

/** From where the rail stands now, the last frame taken, to a frame; null: it is the first. */
export function moveOf(run: Run, step: Step): number | null {
  const from = run.plan.steps[lastTaken(run)];
  return from ? step.focus_mm - from.focus_mm : null;
}

/** Where a frame is focused, in words: it counts from the nearest point that must be sharp. */
export function nearWords(step: Step, units: Units): string {
  const focus = step.focus_mm;
  if (Math.abs(focus) < 5e-4) return "the nearest point";
  return `${length(Math.abs(focus), units)} ${focus < 0 ? "before" : "behind"} the nearest point`;
}

/** From which side a mark is come to: always the same, so that the play of the screw does not count. */
export function sideWords(run: Run, step: Step): string {
  if (run.plan.kind !== "rail") return "";
  const first = lastTaken(run) < 0;
  if (step.from_mm !== null && (first || (moveOf(run, step) ?? 0) < 0)) {
    return `Go back to ${fixed(step.from_mm, "mm", 2)} first, then come on to it: the play is taken up so.`;
  }
  if ((moveOf(run, step) ?? 0) < 0) return "Go back past it first, then come on to it.";
  return "Turn on toward it, never back.";
}

/** From where the knob stands now to a frame, in its own turns and divisions; empty where it is not known. */
export function knobWords(run: Run, step: Step): string {
  const from = run.plan.steps[lastTaken(run)];
  const { divisions } = run.plan;
  if (!from || divisions === null || step.knob_divisions === null || from.knob_divisions === null) return "";
  const on = step.knob_divisions - from.knob_divisions;
  const turns = Math.floor(Math.abs(on) / divisions + 1e-9);
  const rest = Number((Math.abs(on) - turns * divisions).toFixed(1));
  const parts = [
    turns ? `${turns} ${turns === 1 ? "turn" : "turns"}` : "",
    rest || !turns ? `${rest} ${rest === 1 ? "division" : "divisions"}` : "",
  ];
  return `Knob ${on < 0 ? "back" : "on"} by ${parts.filter(Boolean).join(" and ")}.`;
}

/** The run as a staircase: filled as frames are taken. */
export function stairsOf(run: Run): Stairs {
  const rows = run.plan.steps.map((step): Stairs["rows"][number] => ({
    frame: step.frame,
    look: run.times_taken[step.frame] ? "filled" : run.skipped.includes(step.frame) ? "broken" : "to come",
    found: [step.sharp_from_mm, step.sharp_to_mm],
    planned: null,
  }));
  const ends = rows.flatMap((row) => row.found);
  const focuses = run.plan.steps.map((step) => step.focus_mm);
  return {
    rows,
    from: Math.min(...ends),
    to: Math.max(...ends),
    near: 0,
    far: run.plan.depth_mm ?? Math.max(...focuses, 0),
  };
}

/** Seconds that the run has gone on, by its own events. */
export function goneSeconds(run: Run): number {
  const from = Date.parse(run.started_at);
  return run.last_at ? Math.max((Date.parse(run.last_at) - from) / 1000, 0) : 0;
}
