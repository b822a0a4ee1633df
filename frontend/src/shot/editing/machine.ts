/**
 * What editing a document goes through, as values: the draft, what of it the server has, and what is to be done next.
 *
 * Nothing here waits, sends or draws. `useEditing` feeds it with what happened and does what `toDo` says.
 */
import type { FieldProblem } from "../../api/types";

export type SaveState = "saved" | "saving" | "waiting" | "refused" | "conflict";

/** A document as it is kept, with what undo and redo can do. */
export interface Kept<T> {
  id: string;
  revision: number;
  can_undo: boolean;
  can_redo: boolean;
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
}

export type Happening<T> =
  | { what: "edited"; draft: T; passing: boolean }
  | { what: "sent" }
  | { what: "saved"; kept: Kept<T> }
  | { what: "failed"; why: "waiting" | "refused" | "conflict"; problems?: FieldProblem[] }
  /** The server's form is taken as it is. */
  | { what: "adopted"; kept: Kept<T> }
  /** The draft is to go on top of the server's form. */
  | { what: "rebased"; kept: Kept<T> }
  /** Time to try again. */
  | { what: "retried" };

/** Where editing starts: with the form opened, or with a draft that was left unsaved in this browser. */
export function opened<T>(kept: Kept<T>, left: { base_revision: number; body: T } | null): Work<T> {
  if (left === null)
    return { kept, draft: kept.body, dirty: false, sending: null, state: "saved", problems: [] };
  const state = left.base_revision === kept.revision ? "saving" : "conflict";
  return { kept, draft: left.body, dirty: true, sending: null, state, problems: [] };
}

export function after<T>(work: Work<T>, event: Happening<T>): Work<T> {
  switch (event.what) {
    case "edited":
      if (event.passing) return { ...work, draft: event.draft };
      return {
        ...work,
        draft: event.draft,
        dirty: true,
        // A new draft is a new try, whatever stood against the last one; a conflict must be decided first.
        state: work.state === "conflict" ? "conflict" : "saving",
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
        state: work.dirty ? "saving" : "saved",
      };
    case "failed":
      if (work.sending === null) return work;
      return { ...work, sending: null, dirty: true, state: event.why, problems: event.problems ?? [] };
    case "adopted":
      return opened(event.kept, null);
    case "rebased":
      return { ...work, kept: event.kept, dirty: true, state: "saving" };
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
  return !work.dirty && work.sending === null && work.state !== "conflict";
}
