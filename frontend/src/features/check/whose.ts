import type { Job, Run } from "../../api/types";

/** Whose frames a check looked through: the last run's, as far as can be told; some of before it; another folder's. */
export type Whose = "run" | "before" | "elsewhere";

/** A run that was counted by hand names no folder: any that was looked through since may be its own. */
export function whoseFrames(
  job: Pick<Job, "asked_at" | "folder"> | undefined,
  run: Pick<Run, "started_at" | "folder"> | null,
): Whose {
  if (!job || !run) return "run";
  if (Date.parse(job.asked_at) < Date.parse(run.started_at)) return "before";
  return run.folder && run.folder !== job.folder ? "elsewhere" : "run";
}
