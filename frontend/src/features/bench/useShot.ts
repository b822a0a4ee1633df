/**
 * One shot on the page: the draft that is edited, kept on the server change by change, never lost in between.
 *
 * A change is drawn at once, stashed in this browser, and saved in the background, one save at a time. A stash that
 * was never saved (closed window, stopped server) is taken up again when the shot is next opened.
 */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, dataOf, Refusal, Unreachable } from "../../api/client";
import type { FieldProblem, KeptShot, Shot } from "../../api/types";
import { clearStash, readStash, writeStash } from "./stash";

export type SaveState = "saved" | "saving" | "waiting" | "refused" | "conflict";

const RETRY_MS = 2000;

export interface ShotEditing {
  shot: Shot;
  kept: KeptShot;
  saveState: SaveState;
  problems: FieldProblem[];
  /** Change the draft; `passing` while something is being dragged: drawn, not yet saved. */
  edit: (change: (shot: Shot) => Shot, options?: { passing?: boolean }) => void;
  undo: () => void;
  redo: () => void;
  keepMine: () => void;
  takeTheirs: () => void;
}

export function useShot(shotId: string) {
  const query = useQuery({
    queryKey: ["shot", shotId],
    queryFn: () => dataOf(api.GET("/api/shots/{shot_id}", { params: { path: { shot_id: shotId } } })),
    refetchOnWindowFocus: "always",
  });
  return query;
}

export function useShotEditing(opened: KeptShot): ShotEditing {
  const shotId = opened.shot_id;
  const queries = useQueryClient();
  const [kept, setKept] = useState(opened);
  const [stashed] = useState(() => readStash(shotId));
  const [shot, setShot] = useState<Shot>(stashed?.shot ?? opened.shot);
  const [saveState, setSaveState] = useState<SaveState>(
    stashed === null ? "saved" : stashed.base_revision === opened.revision ? "waiting" : "conflict",
  );
  const [problems, setProblems] = useState<FieldProblem[]>([]);
  const [retries, setRetries] = useState(0);

  // What the save loop reads; never drawn.
  const work = useRef({
    draft: shot,
    base: opened.revision,
    dirty: stashed !== null,
    running: false,
    halted: saveState === "conflict",
  });

  const adopt = useCallback(
    (next: KeptShot) => {
      // In place: a save under way holds on to this record.
      Object.assign(work.current, { draft: next.shot, base: next.revision, dirty: false, halted: false });
      clearStash(shotId);
      setKept(next);
      setShot(next.shot);
      setProblems([]);
      setSaveState("saved");
      queries.setQueryData(["shot", shotId], next);
    },
    [queries, shotId],
  );

  const save = useCallback(async (): Promise<boolean> => {
    const state = work.current;
    if (state.running || state.halted) return false;
    state.running = true;
    try {
      while (state.dirty && !state.halted) {
        const sending = state.draft;
        state.dirty = false;
        setSaveState("saving");
        const next = await dataOf(
          api.PUT("/api/shots/{shot_id}", {
            params: { path: { shot_id: shotId } },
            body: { base_revision: state.base, shot: sending },
          }),
        );
        state.base = next.revision;
        setKept(next);
        setProblems([]);
        queries.setQueryData(["shot", shotId], next);
        announce(shotId, next.revision);
        if (state.draft === sending) clearStash(shotId);
      }
      setSaveState("saved");
      return true;
    } catch (error) {
      state.dirty = true;
      if (error instanceof Refusal && error.problem.status === 409) {
        state.halted = true;
        setSaveState("conflict");
      } else if (error instanceof Refusal && error.problem.status === 422) {
        // The shot is one member of what was sent: its fields are named from there.
        setProblems(
          (error.problem.problems ?? []).map((each) => ({
            ...each,
            field: each.field.replace(/^\/shot/, ""),
          })),
        );
        setSaveState("refused");
      } else {
        setSaveState("waiting");
        if (error instanceof Unreachable || error instanceof Refusal)
          setTimeout(() => setRetries((count) => count + 1), RETRY_MS);
      }
      return false;
    } finally {
      state.running = false;
    }
  }, [queries, shotId]);
  useEffect(() => {
    if (work.current.dirty) void save();
  }, [save, retries]);

  const edit = useCallback<ShotEditing["edit"]>(
    (change, options) => {
      const next = change(work.current.draft);
      work.current.draft = next;
      setShot(next);
      if (options?.passing) return;
      work.current.dirty = true;
      writeStash(shotId, { base_revision: work.current.base, shot: next });
      void save();
    },
    [save, shotId],
  );

  const step = useCallback(
    async (direction: "undo" | "redo") => {
      const state = work.current;
      // A draft that was refused is not on the server: undoing it is going back to what is kept.
      if (state.dirty && !state.running && direction === "undo" && !state.halted) {
        const current = await dataOf(
          api.GET("/api/shots/{shot_id}", { params: { path: { shot_id: shotId } } }),
        );
        adopt(current);
        return;
      }
      if (state.dirty || state.running || state.halted) return;
      try {
        const request = { params: { path: { shot_id: shotId } }, body: { base_revision: state.base } };
        const next = await dataOf(
          direction === "undo"
            ? api.POST("/api/shots/{shot_id}/undo", request)
            : api.POST("/api/shots/{shot_id}/redo", request),
        );
        adopt(next);
        announce(shotId, next.revision);
      } catch (error) {
        if (error instanceof Refusal && error.problem.status === 409) {
          state.halted = true;
          setSaveState("conflict");
        } else setSaveState("waiting");
      }
    },
    [adopt, shotId],
  );

  const takeTheirs = useCallback(async () => {
    adopt(await dataOf(api.GET("/api/shots/{shot_id}", { params: { path: { shot_id: shotId } } })));
  }, [adopt, shotId]);

  const keepMine = useCallback(async () => {
    const theirs = await dataOf(api.GET("/api/shots/{shot_id}", { params: { path: { shot_id: shotId } } }));
    Object.assign(work.current, { base: theirs.revision, dirty: true, halted: false });
    writeStash(shotId, { base_revision: theirs.revision, shot: work.current.draft });
    await save();
  }, [save, shotId]);

  // Another window saved: follow it when there is nothing unsaved here; otherwise the next save meets the conflict.
  useEffect(() => {
    const channel = new BroadcastChannel(CHANNEL);
    channel.onmessage = (event: MessageEvent<{ shotId: string; revision: number }>) => {
      const state = work.current;
      if (
        event.data.shotId === shotId &&
        event.data.revision !== state.base &&
        !state.dirty &&
        !state.running
      )
        void takeTheirs();
    };
    return () => channel.close();
  }, [shotId, takeTheirs]);
  useEffect(() => {
    const state = work.current;
    if (opened.revision !== state.base && !state.dirty && !state.running && !state.halted) adopt(opened);
  }, [opened, adopt]);

  return {
    shot,
    kept,
    saveState,
    problems,
    edit,
    undo: useCallback(() => void step("undo"), [step]),
    redo: useCallback(() => void step("redo"), [step]),
    keepMine: useCallback(() => void keepMine(), [keepMine]),
    takeTheirs: useCallback(() => void takeTheirs(), [takeTheirs]),
  };
}

const CHANNEL = "just-plane";

function announce(shotId: string, revision: number) {
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage({ shotId, revision });
  channel.close();
}
