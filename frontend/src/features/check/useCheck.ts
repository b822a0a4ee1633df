import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";
import { usePreferences } from "../../look/preferences";
import { useRun } from "../../shot/useRun";
import { whoseFrames } from "./whose";
import type { CheckReport, Job, ProofMethod, StackNumbers } from "../../api/types";

const OPEN: readonly Job["state"][] = ["waiting", "running", "pausing", "paused", "cancelling"];
const EVERY_MS = 1000;

export const isOpen = (job: Job | undefined) => job !== undefined && OPEN.includes(job.state);

export const METHODS: readonly ProofMethod[] = ["windowed", "depth", "pyramid"];

export interface Asked {
  folder: string;
  methods: ProofMethod[];
  numbers?: StackNumbers | null;
  /** By the shot's plan, or by none. */
  plan?: "shot" | "none";
  slabs?: Job["slabs"];
  putBack?: string[];
}

/** The last checks of a shot's frames, the newest first. */
export const checksOf = (shotId: string) => ({
  queryKey: ["checks", shotId],
  queryFn: () => dataOf(api.GET("/api/shots/{shot_id}/checks", { params: { path: { shot_id: shotId } } })),
});

/** One check with what it found, followed while it runs, and asked for anew when the list has it in another state.
 *  Meanwhile what is known of it stays: forms and folds around it would be closed over nothing. */
export const lookOf = (latest: Job | undefined) =>
  queryOptions({
    queryKey: ["job", latest?.job_id, latest?.state],
    enabled: latest !== undefined,
    queryFn: () =>
      dataOf(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: latest?.job_id ?? "" } } })),
    refetchInterval: (query) => (isOpen(query.state.data ?? latest) ? EVERY_MS : false),
    placeholderData: (known) => (known?.job_id === latest?.job_id ? known : undefined),
  });

/** The last check of a shot's frames: followed while it runs, begun anew, stopped. What it found is told once it is
 *  known whose frames those are: of an older run or of another folder, they say nothing of the set that stands. */
export function useCheck(shotId: string) {
  const client = useQueryClient();
  const { units } = usePreferences();
  const list = useQuery(checksOf(shotId));
  const latest = list.data?.jobs[0];
  const job = useQuery(lookOf(latest));
  const running = useRun(shotId);
  const again = () => client.invalidateQueries({ queryKey: ["checks", shotId] });
  const start = useMutation({
    mutationFn: ({ folder, methods, numbers = null, plan = "shot", slabs = null, putBack = [] }: Asked) =>
      dataOf(
        api.POST("/api/checks", {
          params: { query: { units } },
          body: {
            folder,
            methods,
            numbers: numbers && { ...numbers, units },
            plan,
            slabs,
            put_back: putBack,
            shot_id: shotId,
          },
        }),
      ),
    onSettled: again,
  });
  const stop = useMutation({
    mutationFn: (jobId: string) =>
      dataOf(api.POST("/api/jobs/{job_id}/cancel", { params: { path: { job_id: jobId } } })),
    onSettled: again,
  });
  const rest = useMutation({
    mutationFn: ({ jobId, on }: { jobId: string; on: boolean }) => {
      const params = { params: { path: { job_id: jobId } } };
      return dataOf(
        on ? api.POST("/api/jobs/{job_id}/go-on", params) : api.POST("/api/jobs/{job_id}/pause", params),
      );
    },
    onSettled: again,
  });
  return {
    job: job.data ?? latest,
    report: running.loading ? null : (job.data?.report ?? null),
    whose: whoseFrames(job.data ?? latest, running.run),
    loading: list.isLoading || job.isLoading || running.loading,
    failed: list.error,
    start,
    stop,
    rest,
  };
}

export type Check = ReturnType<typeof useCheck>;

/** A look that is done: what was found, by which job, of which shot. */
export interface Looked {
  report: CheckReport;
  job: Job;
  check: Check;
  shotId: string;
}
