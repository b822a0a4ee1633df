import type { CheckReport } from "../../api/types";
import type { Stairs, Tread } from "../../shot/Staircase";

/** The rows of the staircase; null where the step or the depth of field is not known in mm. */
export function treads(report: CheckReport): Stairs | null {
  const { step_mm: step, depth_of_field_mm: depth, first_mm: first, planned_frames: planned } = report.plan;
  const deep = report.plan.depth_mm;
  if (step === null || depth === null) return null;
  const half = depth / 2;
  // Marks are those of the rail: where it went farther than it reads, a frame holds less of them.
  const held = (half * step) / (report.step_measured?.step_mm ?? step);
  // Frames in front that could not be used stood there all the same: places begin behind them.
  const inFront = Math.round(report.frames[report.order[0] ?? 0]?.place_steps ?? 0);
  const rows = report.order.flatMap((frame, row): Tread[] => {
    const index = inFront + row;
    const focus = report.frames[frame]?.focus_mm;
    if (focus === null || focus === undefined) return [];
    const meant = first + index * step;
    return [
      {
        frame,
        look: report.frames[frame]?.used ? "filled" : "broken",
        found: [focus - held, focus + held],
        planned: planned === null || index < planned ? [meant - half, meant + half] : null,
      },
    ];
  });
  if (!rows.length) return null;
  const ends = rows.flatMap((row) => [...row.found, ...(row.planned ?? [])]);
  const last = first + ((planned ?? rows.length) - 1) * step;
  return {
    rows,
    from: Math.min(...ends),
    to: Math.max(...ends, last),
    near: deep === null ? Math.max(first, 0) : 0,
    far: deep ?? Math.max(last, 0),
  };
}
