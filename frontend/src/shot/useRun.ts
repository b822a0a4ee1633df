import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, dataOf, Refusal } from "../api/client";
import { putKnown } from "../api/known";
import type { Devices, Run, RunEvent, WayId } from "../api/types";
import { newHex } from "../look/ids";

/** How often a window that only watches looks again. */
const WATCH_MS = 2000;
/** And one in which devices work. */
const DRIVEN_MS = 500;

/** Names a press, so that one sent twice is counted once. */
const press = newHex;

type Tell = (
  kind: RunEvent["kind"],
  frame?: number | null,
  more?: { focuses_mm?: number[]; file?: string | null; passed?: string[] },
) => void;

/** What was asked is refused, and would be again; a full disk or a server that is gone may be better in a moment. */
const isRefused = (error: Error) => error instanceof Refusal && error.problem.status < 500;

const everyMs = (run: Run | undefined) =>
  run?.driven ? DRIVEN_MS : run?.state === "running" ? WATCH_MS : false;

/** The last run of a shot: begun, driven press by press, watched by other windows. */
export function useRun(shotId: string) {
  const client = useQueryClient();
  const key = ["runs", shotId];
  const list = useQuery({
    queryKey: key,
    queryFn: () => dataOf(api.GET("/api/shots/{shot_id}/runs", { params: { path: { shot_id: shotId } } })),
    refetchInterval: (query) => everyMs(query.state.data?.runs[0]),
  });
  const run = list.data?.runs[0] ?? null;
  const put = (told: Run) =>
    putKnown<{ runs: Run[] }>(client, key, (last) => ({
      runs: [told, ...(last?.runs ?? []).filter((each) => each.run_id !== told.run_id)],
    }));
  const begin = useMutation({
    mutationFn: (body: { way: WayId | null; first_mark_mm: number | null }) =>
      dataOf(api.POST("/api/shots/{shot_id}/runs", { params: { path: { shot_id: shotId } }, body })),
    onSuccess: put,
    // Begun in another window, perhaps: that one is gone on with here too.
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
  const send = useMutation({
    mutationFn: ({ at, event, name }: { at: Run; event: RunEvent; name: string }) =>
      dataOf(
        api.POST("/api/runs/{run_id}/events", {
          params: { path: { run_id: at.run_id } },
          body: { number: at.events, press: name, event },
        }),
      ),
    retry: (tries, error) => tries < 2 && !isRefused(error),
    onSuccess: put,
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
  const watch = useMutation({
    mutationFn: ({ at, folder }: { at: Run; folder: string }) =>
      dataOf(
        api.POST("/api/runs/{run_id}/watch", {
          params: { path: { run_id: at.run_id } },
          body: { number: at.events, press: press(), folder },
        }),
      ),
    onSuccess: put,
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
  const drive = useMutation({
    mutationFn: ({ at, devices }: { at: Run; devices: Devices }) =>
      dataOf(
        api.POST("/api/runs/{run_id}/drive", {
          params: { path: { run_id: at.run_id } },
          body: { number: at.events, press: press(), devices },
        }),
      ),
    onSuccess: put,
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
  const grey = async (at: Run, folder: string, file: string) =>
    await put(
      await dataOf(
        api.POST("/api/runs/{run_id}/grey", {
          params: { path: { run_id: at.run_id } },
          body: { number: at.events, press: press(), folder, file },
        }),
      ),
    );
  const tell: Tell = (kind, frame = null, { focuses_mm = [], file = null, passed = [] } = {}) => {
    if (run && !send.isPending) {
      begin.reset(); // that one was under way was told
      send.mutate({
        at: run,
        event: {
          kind,
          frame,
          focuses_mm,
          file,
          sha256: null,
          folder: null,
          there_before: passed,
          reading_mm: null,
          words: "",
          devices: null,
          white: null,
        },
        name: press(),
      });
    }
  };
  const error = send.error ?? begin.error ?? list.error;
  return {
    run,
    loading: list.isLoading,
    begin,
    watch,
    drive,
    tell,
    grey,
    busy: send.isPending || drive.isPending,
    error,
  };
}

export type Running = ReturnType<typeof useRun>;
