import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";
import type { Trial, TrialAsked } from "../../api/types";

const KEY = ["trials"];
const EVERY_MS = 800;
const OPEN: readonly Trial["state"][] = ["waiting", "running", "cancelling"];

interface Judged {
  trial: Trial;
  believed: boolean;
  putAside: boolean;
  /** Though another that is believed says something else. */
  over?: boolean;
}

export const isOpen = (trial: Trial) => OPEN.includes(trial.state);

/** What was measured: asked for, followed, believed, put aside. */
export function useTrials() {
  const client = useQueryClient();
  const list = useQuery({
    queryKey: KEY,
    queryFn: () => dataOf(api.GET("/api/trials")),
    refetchInterval: (query) => (query.state.data?.trials.some(isOpen) ? EVERY_MS : false),
  });
  const again = () => client.invalidateQueries({ queryKey: KEY });
  const begin = useMutation({
    mutationFn: (asked: TrialAsked) => dataOf(api.POST("/api/trials", { body: asked })),
    onSuccess: again,
  });
  const judge = useMutation({
    mutationFn: ({ trial, believed, putAside, over = false }: Judged) =>
      dataOf(
        api.PUT("/api/trials/{trial_id}/judged", {
          params: { path: { trial_id: trial.trial_id } },
          body: { believed, put_aside: putAside, over_the_other: over },
        }),
      ),
    onSuccess: () => Promise.all([again(), client.invalidateQueries({ queryKey: ["kit"] })]),
  });
  return { trials: list.data?.trials ?? [], loading: list.isLoading, failed: list.error, begin, judge };
}

export type TrialsHeld = ReturnType<typeof useTrials>;
