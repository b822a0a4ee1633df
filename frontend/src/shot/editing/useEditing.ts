/**
 * One document on the page (a shot, the kit): the draft that is edited, kept on the server change by change, never lost
 * in between.
 *
 * A change is drawn at once, stashed in this browser, and saved in the background, one save at a time; `machine.ts` says
 * what follows from what. A stash that was never saved (closed window, stopped server) is taken up again when the
 * document is next opened.
 */
import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refusal } from "../../api/client";
import type { FieldProblem } from "../../api/types";
import {
  after,
  isSettled,
  opened as openedWith,
  toDo,
  type Happening,
  type Kept,
  type Work,
} from "./machine";
import { clearStash, readStash, writeStash } from "./stash";

export type { Kept, SaveState } from "./machine";

const RETRY_MS = 2000;
const WAIT_MS = 25;
const MOST_WAITS = 200;

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
  saveState: Work<T>["state"];
  problems: FieldProblem[];
  /** Change the draft; `passing` while something is being dragged: drawn, not yet saved. */
  edit: (change: (draft: T) => T, options?: { passing?: boolean }) => void;
  undo: () => void;
  redo: () => void;
  keepMine: () => void;
  takeTheirs: () => void;
}

export function useEditing<T>(
  opened: Kept<T>,
  place: Place<T>,
  /** Told of every changed draft before it is drawn. */
  onDraft?: (draft: T) => void,
): Editing<T> {
  const { id } = place;
  const queries = useQueryClient();
  const [shown, setShown] = useState(() => openedWith(opened, readStash<T>(id, opened.body)));
  // What happens is reckoned from here: a second change in one breath must see the first.
  const work = useRef(shown);

  const happened = useCallback((event: Happening<T>) => {
    work.current = after(work.current, event);
    setShown(work.current);
  }, []);

  const send = useCallback(async () => {
    while (toDo(work.current) === "send") {
      const base = work.current.kept.revision;
      happened({ what: "sent" });
      try {
        const kept = await place.put(base, work.current.sending as T);
        happened({ what: "saved", kept });
        place.arrived(kept, queries);
        announce(id, kept.revision);
        if (isSettled(work.current)) clearStash(id);
      } catch (error) {
        happened({ what: "failed", ...failureOf(error, place.member) });
        if (work.current.state === "waiting") setTimeout(() => happened({ what: "retried" }), RETRY_MS);
      }
    }
  }, [happened, id, place, queries]);
  useEffect(() => void send(), [send, shown]);

  const adopt = useCallback(
    (kept: Kept<T>) => {
      clearStash(id);
      happened({ what: "adopted", kept });
      place.arrived(kept, queries);
    },
    [happened, id, place, queries],
  );

  const told = useRef(onDraft);
  useEffect(() => {
    told.current = onDraft;
  });
  const edit = useCallback<Editing<T>["edit"]>(
    (change, options) => {
      const draft = change(work.current.draft);
      told.current?.(draft);
      const passing = options?.passing ?? false;
      happened({ what: "edited", draft, passing });
      if (passing) return;
      writeStash(id, { base_revision: work.current.kept.revision, body: draft });
      void send();
    },
    [happened, send, id],
  );

  const step = useCallback(
    async (direction: "undo" | "redo") => {
      // A save under way is waited for: what it saves is what is to be undone.
      for (let waits = 0; work.current.sending !== null && waits < MOST_WAITS; waits++) {
        await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
      }
      const { dirty, sending, state, kept } = work.current;
      if (sending !== null || state === "conflict") return;
      // A draft that was refused is not on the server: undoing it is going back to what is kept.
      if (dirty) {
        if (direction === "undo") adopt(await place.get());
        return;
      }
      try {
        const next = await place.step(direction, kept.revision);
        adopt(next);
        announce(id, next.revision);
      } catch (error) {
        // As a save that failed, of a draft that is what was kept.
        happened({ what: "sent" });
        happened({ what: "failed", ...failureOf(error, place.member) });
        if (work.current.state === "waiting") setTimeout(() => happened({ what: "retried" }), RETRY_MS);
      }
    },
    [adopt, happened, id, place],
  );

  const takeTheirs = useCallback(async () => {
    adopt(await place.get());
  }, [adopt, place]);

  const keepMine = useCallback(async () => {
    const kept = await place.get();
    happened({ what: "rebased", kept });
    writeStash(id, { base_revision: kept.revision, body: work.current.draft });
    await send();
  }, [happened, send, id, place]);

  // Another window saved: follow it when there is nothing unsaved here; otherwise the next save meets the conflict.
  useEffect(() => {
    const channel = new BroadcastChannel(CHANNEL);
    channel.onmessage = (event: MessageEvent<{ id: string; revision: number }>) => {
      if (event.data.id !== id || event.data.revision === work.current.kept.revision) return;
      if (isSettled(work.current)) void takeTheirs();
    };
    return () => channel.close();
  }, [id, takeTheirs]);
  useEffect(() => {
    if (opened.revision !== work.current.kept.revision && isSettled(work.current)) adopt(opened);
  }, [opened, adopt]);

  return {
    draft: shown.draft,
    kept: shown.kept,
    saveState: shown.state,
    problems: shown.problems,
    edit,
    undo: useCallback(() => void step("undo"), [step]),
    redo: useCallback(() => void step("redo"), [step]),
    keepMine: useCallback(() => void keepMine(), [keepMine]),
    takeTheirs: useCallback(() => void takeTheirs(), [takeTheirs]),
  };
}

/** What a failed request means for the draft. */
function failureOf(
  error: unknown,
  member: string,
): { why: "waiting" | "refused" | "conflict"; problems?: FieldProblem[] } {
  // Whatever else may fail on the way, the draft is here and not there.
  if (!(error instanceof Refusal)) return { why: "waiting" };
  const { status, problems } = error.problem;
  if (status === 409) return { why: "conflict" };
  if (status !== 422) return { why: "waiting" };
  const field = (pointer: string) => pointer.replace(new RegExp(`^/${member}`), "");
  return {
    why: "refused",
    problems: (problems ?? []).map((each) => ({ ...each, field: field(each.field) })),
  };
}

const CHANNEL = "just-plane";

function announce(id: string, revision: number) {
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage({ id, revision });
  channel.close();
}
