/** Drafts that closed windows left unsaved: the newest is taken up, the others are offered; none is lost by itself. */
import { useCallback, useEffect, useRef, useState } from "react";
import { dropLeft, leftBehind, type Left } from "./stash";

export interface LeftBehind {
  drafts: { key: string; at: string }[];
  /** By its key. */
  take: (key: string) => void;
  drop: (key: string) => void;
}

export function useLeftBehind<T>(
  id: string,
  body: T,
  /** Takes a draft up as one's own, where nothing was changed here yet: whether it did. */
  takeUp: (left: Left<T>) => boolean,
  edit: (change: (draft: T) => T) => void,
): LeftBehind {
  const [drafts, setDrafts] = useState<Left<T>[]>([]);
  const whole = useRef(body);
  useEffect(() => {
    let shut = false;
    void leftBehind(id, whole.current).then(([newest, ...others]) => {
      if (shut || newest === undefined) return;
      // Where something was changed here already, the newest is offered like the others.
      if (!takeUp(newest)) {
        setDrafts([newest, ...others]);
        return;
      }
      dropLeft(newest.key);
      setDrafts(others);
    });
    return () => {
      shut = true;
    };
  }, [id, takeUp]);
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
