/**
 * What editing a document goes through, as values: the draft, what of it the server has, and what is to be done next.
 *
 * Nothing here waits, sends or draws. `useEditing` feeds it with what happened and does what `toDo` says.
 */
import type { FieldProblem } from "../../api/types";

/** `waiting` is tried again by itself, `refused` when the draft changes, `conflict` and `gone` when it is decided. */
export type SaveState = "saved" | "saving" | "waiting" | "refused" | "conflict" | "gone";
export type Failure = Extract<SaveState, "waiting" | "refused" | "conflict" | "gone">;

/** A document as it is kept, with what undo and redo can do. */
export interface Kept<T> {
  id: string;
  revision: number;
  can_undo: boolean;
  can_redo: boolean;
  /** It was put away. */
  removed?: boolean;
  body: T;
}

export interface Work<T> {
  /** The newest form that the server is known to have; a save is made from its revision. */
  kept: Kept<T>;
  draft: T;
  /** The draft holds something that has not been sent. */
  dirty: boolean;
  /** What is under way to the server; null: nothing. */
  sending: T | null;
  state: SaveState;
  problems: FieldProblem[];
  /** Why the last save failed, in the server's words; empty where nothing did. */
  said: string;
}

export type Happening<T> =
  | { what: "edited"; draft: T; passing: boolean }
  | { what: "sent" }
  | { what: "saved"; kept: Kept<T> }
  | { what: "failed"; why: Failure; problems?: FieldProblem[]; said?: string }
  /** A draft that a closed window left behind; only where nothing has been done here yet. */
  | { what: "found"; left: { base_revision: number; body: T } }
  /** The server's form is taken as it is. */
  | { what: "adopted"; kept: Kept<T> }
  /** The draft is to go on top of the server's form. */
  | { what: "rebased"; kept: Kept<T> }
  /** Time to try again. */
  | { what: "retried" };

/** Where editing starts: with the form opened, or with a draft that was left unsaved in this browser. */
export function opened<T>(kept: Kept<T>, left: { base_revision: number; body: T } | null): Work<T> {
  const rest = { kept, sending: null, problems: [], said: "" };
  if (left === null) return { ...rest, draft: kept.body, dirty: false, state: "saved" };
  const state = left.base_revision === kept.revision ? "saving" : "conflict";
  return { ...rest, draft: left.body, dirty: true, state };
}

export function after<T>(work: Work<T>, event: Happening<T>): Work<T> {
  switch (event.what) {
    case "edited":
      if (event.passing) return { ...work, draft: event.draft };
      return {
        ...work,
        draft: event.draft,
        dirty: true,
        // A new draft is a new try, whatever stood against the last one; some things must be decided first.
        state: work.state === "conflict" || work.state === "gone" ? work.state : "saving",
      };
    case "sent":
      return { ...work, sending: work.draft, dirty: false, state: "saving" };
    case "saved":
      // Overtaken by an adoption: the server has this one now all the same.
      if (work.sending === null) return after(work, { what: "adopted", kept: event.kept });
      return {
        ...work,
        kept: event.kept,
        sending: null,
        problems: [],
        said: "",
        state: work.dirty ? "saving" : "saved",
      };
    case "failed":
      if (work.sending === null) return work;
      return {
        ...work,
        sending: null,
        dirty: true,
        state: event.why,
        problems: event.problems ?? [],
        said: event.said ?? "",
      };
    case "found":
      return isSettled(work) && work.draft === work.kept.body ? opened(work.kept, event.left) : work;
    case "adopted":
      return opened(event.kept, null);
    case "rebased":
      return { ...work, kept: event.kept, dirty: true, state: "saving", said: "" };
    case "retried":
      return work.state === "waiting" ? { ...work, state: "saving" } : work;
  }
}

/** What is to be done now: send the draft, or nothing. */
export function toDo<T>(work: Work<T>): "send" | null {
  return work.dirty && work.sending === null && work.state === "saving" ? "send" : null;
}

/** Whether the server has everything and nothing is under way, so that another window may be followed. */
export function isSettled<T>(work: Work<T>): boolean {
  return !work.dirty && work.sending === null && work.state !== "conflict" && work.state !== "gone";
}
