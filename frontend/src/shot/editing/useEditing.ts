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
  type Failure,
  type Happening,
  type Kept,
  type Work,
} from "./machine";
import { changedField, NOTHING_YET, noted, same, sent } from "./meaning";
import { clearStash, writeStash, type Left } from "./stash";
import { useLeftBehind, type LeftBehind } from "./useLeftBehind";

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
  /** `continues`: it goes on with the change saved last, and takes the place of that version. */
  put: (base: number, body: T, continues: boolean) => Promise<Kept<T>>;
  step: (direction: "undo" | "redo", base: number) => Promise<Kept<T>>;
  /** A newer form has come from the server: let the rest of the page know. */
  arrived: (kept: Kept<T>, queries: QueryClient) => void;
}

export interface Editing<T> {
  draft: T;
  kept: Kept<T>;
  saveState: Work<T>["state"];
  problems: FieldProblem[];
  /** Why the last save failed, in the server's words. */
  said: string;
  /** Other drafts that closed windows left behind. */
  left: LeftBehind;
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
  const [shown, setShown] = useState(() => openedWith<T>(opened, null));
  // What happens is reckoned from here: a second change in one breath must see the first.
  const work = useRef(shown);
  const meaning = useRef(NOTHING_YET);

  const happened = useCallback((event: Happening<T>) => {
    work.current = after(work.current, event);
    setShown(work.current);
  }, []);

  const send = useCallback(async () => {
    while (toDo(work.current) === "send") {
      const base = work.current.kept.revision;
      const continues = meaning.current.pending?.continues ?? false;
      meaning.current = sent(meaning.current);
      happened({ what: "sent" });
      try {
        const kept = await putOrFind(place, base, work.current.sending as T, continues);
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
      meaning.current = NOTHING_YET;
      happened({ what: "adopted", kept });
      place.arrived(kept, queries);
    },
    [happened, id, place, queries],
  );

  const told = useRef(onDraft);
  useEffect(() => {
    told.current = onDraft;
  });
  // What the last change that counts left: what is dragged is one change from here to where it is let go.
  const stood = useRef(opened.body);
  const edit = useCallback<Editing<T>["edit"]>(
    (change, options) => {
      const draft = change(work.current.draft);
      told.current?.(draft);
      const passing = options?.passing ?? false;
      // A press that changed nothing (it came before the last one was drawn) means nothing either.
      if (!passing && !same(stood.current, draft)) {
        meaning.current = noted(meaning.current, changedField(stood.current, draft), Date.now());
        stood.current = draft;
      }
      happened({ what: "edited", draft, passing });
      if (passing) return;
      writeStash(id, { base_revision: work.current.kept.revision, body: draft });
      void send();
    },
    [happened, send, id],
  );

  /** The server's form taken, unless something was changed here while it was on its way: that is never overwritten. */
  const fetchAndAdopt = useCallback(async () => {
    const before = work.current.draft;
    try {
      const kept = await place.get();
      if (work.current.draft === before) adopt(kept);
    } catch (error) {
      happened({ what: "sent" });
      happened({ what: "failed", ...failureOf(error, place.member) });
    }
  }, [adopt, happened, place]);

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
        if (direction === "undo") await fetchAndAdopt();
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
    [adopt, fetchAndAdopt, happened, id, place],
  );

  const keepMine = useCallback(async () => {
    try {
      const kept = await place.get();
      happened({ what: "rebased", kept });
      writeStash(id, { base_revision: kept.revision, body: work.current.draft });
      await send();
    } catch (error) {
      happened({ what: "sent" });
      happened({ what: "failed", ...failureOf(error, place.member) });
    }
  }, [happened, send, id, place]);

  const takeUp = useCallback(
    (found: Left<T>) => {
      const { draft, kept } = work.current;
      if (!isSettled(work.current) || draft !== kept.body) return false;
      // Its own from now on, before the one left behind goes.
      writeStash(id, found);
      happened({ what: "found", left: found });
      return true;
    },
    [happened, id],
  );
  const left = useLeftBehind(id, opened.body, takeUp, edit);

  // Another window saved: follow it when there is nothing unsaved here; otherwise the next save meets the conflict.
  useEffect(() => {
    const channel = channelOrNull();
    if (channel === null) return;
    channel.onmessage = (event: MessageEvent<{ id: string; revision: number }>) => {
      if (event.data.id !== id || event.data.revision === work.current.kept.revision) return;
      if (isSettled(work.current)) void fetchAndAdopt();
    };
    return () => channel.close();
  }, [id, fetchAndAdopt]);
  useEffect(() => {
    if (opened.revision !== work.current.kept.revision && isSettled(work.current)) adopt(opened);
  }, [opened, adopt]);
  useEffect(() => {
    if (isSettled(shown)) stood.current = shown.draft;
  }, [shown]);

  return {
    draft: shown.draft,
    kept: shown.kept,
    saveState: shown.state,
    problems: shown.problems,
    said: shown.said,
    left,
    edit,
    undo: useCallback(() => void step("undo"), [step]),
    redo: useCallback(() => void step("redo"), [step]),
    keepMine: useCallback(() => void keepMine(), [keepMine]),
    takeTheirs: useCallback(() => void fetchAndAdopt(), [fetchAndAdopt]),
  };
}

/** A save; where its answer was lost and it is tried again, the server's form is recognised as one's own. */
async function putOrFind<T>(place: Place<T>, base: number, body: T, continues: boolean): Promise<Kept<T>> {
  try {
    return await place.put(base, body, continues);
  } catch (error) {
    if (!(error instanceof Refusal) || error.problem.status !== 409) throw error;
    const kept = await place.get().catch(() => null);
    if (kept !== null && same(kept.body, body)) return kept;
    throw error;
  }
}

/** What a failed request means for the draft. */
function failureOf(
  error: unknown,
  member: string,
): { why: Failure; problems?: FieldProblem[]; said: string } {
  // Whatever else may fail on the way, the draft is here and not there.
  if (!(error instanceof Refusal)) return { why: "waiting", said: "" };
  const { status, problems } = error.problem;
  const said = error.message;
  if (status === 409) return { why: "conflict", said };
  if (status === 404) return { why: "gone", said };
  // Too large, or no JSON: the same draft would be refused again.
  if (status === 413 || status === 415 || status === 400) return { why: "refused", said };
  if (status !== 422) return { why: "waiting", said };
  const field = (pointer: string) => pointer.replace(new RegExp(`^/${member}`), "");
  return {
    why: "refused",
    // What is wrong with a field stands beside it.
    said: problems?.length ? "" : said,
    problems: (problems ?? []).map((each) => ({ ...each, field: field(each.field) })),
  };
}

const CHANNEL = "just-plane";

function announce(id: string, revision: number) {
  const channel = channelOrNull();
  channel?.postMessage({ id, revision });
  channel?.close();
}

/** A way to tell other windows; none where the browser refuses one. */
function channelOrNull(): BroadcastChannel | null {
  try {
    return new BroadcastChannel(CHANNEL);
  } catch {
    return null;
  }
}
