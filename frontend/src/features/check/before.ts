import type { Job, Run } from "../../api/types";

/** Whether a check was asked for before a run began: of the run's frames it says nothing. */
export const isOfBefore = (job: Pick<Job, "asked_at"> | undefined, run: Pick<Run, "started_at"> | null) =>
  job !== undefined && run !== null && Date.parse(job.asked_at) < Date.parse(run.started_at);
