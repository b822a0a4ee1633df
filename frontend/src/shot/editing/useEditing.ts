/**
 * One document on the page (a shot, the kit): the draft that is edited, kept on the server change by change, never lost
 * in between.
 *
 * A change is drawn at once, stashed in this browser, and saved in the background, one save at a time. A stash that
 * was never saved (closed window, stopped server) is taken up again when the document is next opened.
 */
import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refusal, Unreachable } from "../../api/client";
import type { FieldProblem } from "../../api/types";
import { clearStash, readStash, writeStash } from "./stash";

export type SaveState = "saved" | "saving" | "waiting" | "refused" | "conflict";

const RETRY_MS = 2000;
const WAIT_MS = 25;
const MOST_WAITS = 200;

/** A document as it is kept, with what undo and redo can do. */
export interface Kept<T> {
  id: string;
  revision: number;
  can_undo: boolean;
  can_redo: boolean;
  body: T;
}

/** Where a document is kept. One object for as long as the document is open. */
export interface Place<T> {
  id: string;
  /** The member that holds the document in what is sent to save it: its fields are named from there. */
  member: string;
  get: () => Promise<Kept<T>>;
  put: (base: number, body: T) => Promise<Kept<T>>;
  step: (direction: "undo" | "redo", base: number) => Promise<Kept<T>>;
  /** A newer form has come from the server: let the rest of the page know. */
  arrived: (kept: Kept<T>, queries: QueryClient) => void;
}

export interface Editing<T> {
  draft: T;
  kept: Kept<T>;
  saveState: SaveState;
  problems: FieldProblem[];
  /** Change the draft; `passing` while something is being dragged: drawn, not yet saved. */
  edit: (change: (draft: T) => T, options?: { passing?: boolean }) => void;
  undo: () => void;
  redo: () => void;
  keepMine: () => void;
  takeTheirs: () => void;
}

export function useEditing<T>(opened: Kept<T>, place: Place<T>): Editing<T> {
  const { id } = place;
  const queries = useQueryClient();
  const [kept, setKept] = useState(opened);
  const [stashed] = useState(() => readStash<T>(id));
  const [draft, setDraft] = useState<T>(stashed?.body ?? opened.body);
  const [saveState, setSaveState] = useState<SaveState>(
    stashed === null ? "saved" : stashed.base_revision === opened.revision ? "waiting" : "conflict",
  );
  const [problems, setProblems] = useState<FieldProblem[]>([]);
  const [retries, setRetries] = useState(0);

  // What the save loop reads; never drawn.
  const work = useRef({
    draft,
    base: opened.revision,
    dirty: stashed !== null,
    running: false,
    halted: saveState === "conflict",
  });

  const adopt = useCallback(
    (next: Kept<T>) => {
      // In place: a save under way holds on to this record.
      Object.assign(work.current, { draft: next.body, base: next.revision, dirty: false, halted: false });
      clearStash(id);
      setKept(next);
      setDraft(next.body);
      setProblems([]);
      setSaveState("saved");
      place.arrived(next, queries);
    },
    [queries, id, place],
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
        const next = await place.put(state.base, sending);
        state.base = next.revision;
        setKept(next);
        setProblems([]);
        place.arrived(next, queries);
        announce(id, next.revision);
        if (state.draft === sending) clearStash(id);
      }
      setSaveState("saved");
      return true;
    } catch (error) {
      state.dirty = true;
      if (error instanceof Refusal && error.problem.status === 409) {
        state.halted = true;
        setSaveState("conflict");
      } else if (error instanceof Refusal && error.problem.status === 422) {
        setProblems(
          error.problem.problems.map((each) => ({
            ...each,
            field: each.field.replace(new RegExp(`^/${place.member}`), ""),
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
  }, [queries, id, place]);
  useEffect(() => {
    if (work.current.dirty) void save();
  }, [save, retries]);

  const edit = useCallback<Editing<T>["edit"]>(
    (change, options) => {
      const next = change(work.current.draft);
      work.current.draft = next;
      setDraft(next);
      if (options?.passing) return;
      work.current.dirty = true;
      writeStash(id, { base_revision: work.current.base, body: next });
      void save();
    },
    [save, id],
  );

  const step = useCallback(
    async (direction: "undo" | "redo") => {
      const state = work.current;
      // A save under way is waited for: what it saves is what is to be undone.
      for (let waits = 0; state.running && waits < MOST_WAITS; waits++) {
        await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
      }
      // A draft that was refused is not on the server: undoing it is going back to what is kept.
      if (state.dirty && !state.running && direction === "undo" && !state.halted) {
        adopt(await place.get());
        return;
      }
      if (state.dirty || state.running || state.halted) return;
      try {
        const next = await place.step(direction, state.base);
        adopt(next);
        announce(id, next.revision);
      } catch (error) {
        if (error instanceof Refusal && error.problem.status === 409) {
          state.halted = true;
          setSaveState("conflict");
        } else setSaveState("waiting");
      }
    },
    [adopt, id, place],
  );

  const takeTheirs = useCallback(async () => {
    adopt(await place.get());
  }, [adopt, place]);

  const keepMine = useCallback(async () => {
    const theirs = await place.get();
    Object.assign(work.current, { base: theirs.revision, dirty: true, halted: false });
    writeStash(id, { base_revision: theirs.revision, body: work.current.draft });
    await save();
  }, [save, id, place]);

  // Another window saved: follow it when there is nothing unsaved here; otherwise the next save meets the conflict.
  useEffect(() => {
    const channel = new BroadcastChannel(CHANNEL);
    channel.onmessage = (event: MessageEvent<{ id: string; revision: number }>) => {
      const state = work.current;
      if (event.data.id === id && event.data.revision !== state.base && !state.dirty && !state.running)
        void takeTheirs();
    };
    return () => channel.close();
  }, [id, takeTheirs]);
  useEffect(() => {
    const state = work.current;
    if (opened.revision !== state.base && !state.dirty && !state.running && !state.halted) adopt(opened);
  }, [opened, adopt]);

  return {
    draft,
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

function announce(id: string, revision: number) {
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage({ id, revision });
  channel.close();
}
