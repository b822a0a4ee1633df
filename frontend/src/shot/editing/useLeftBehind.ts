/** Drafts that closed windows left unsaved: the newest is taken up, the others are offered; none is lost by itself. */
import { useCallback, useEffect, useRef, useState } from "react";
import type { Happening } from "./machine";
import { dropLeft, leftBehind, writeStash, type Left } from "./stash";

export interface LeftBehind {
  drafts: { key: string; at: string }[];
  /** By its key. */
  take: (key: string) => void;
  drop: (key: string) => void;
}

export function useLeftBehind<T>(
  id: string,
  body: T,
  happened: (event: Happening<T>) => void,
  edit: (change: (draft: T) => T) => void,
): LeftBehind {
  const [drafts, setDrafts] = useState<Left<T>[]>([]);
  const whole = useRef(body);
  useEffect(() => {
    let shut = false;
    void leftBehind(id, whole.current).then(([newest, ...others]) => {
      if (shut || newest === undefined) return;
      // Its own from now on, before the one left behind goes.
      writeStash(id, newest);
      happened({ what: "found", left: newest });
      dropLeft(newest.key);
      setDrafts(others);
    });
    return () => {
      shut = true;
    };
  }, [id, happened]);
  const drop = useCallback((key: string) => {
    dropLeft(key);
    setDrafts((last) => last.filter((each) => each.key !== key));
  }, []);
  const take = useCallback(
    (key: string) => {
      const draft = drafts.find((each) => each.key === key);
      if (draft) edit(() => draft.body);
      drop(key);
    },
    [drafts, drop, edit],
  );
  return { drafts, take, drop };
}
