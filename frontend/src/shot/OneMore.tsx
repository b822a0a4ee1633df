import type { ReactNode } from "react";
import { mostOf } from "../api/fields";
import { Lead } from "../controls/panel";

interface OneMoreProps {
  /** The list, by JSON pointer, and how many it holds. */
  at: string;
  held: number;
  /** What they are and do, as it stands after their number. */
  what: string;
  children: ReactNode;
}

/** What adds one more to a list of the shot; once the list is full, a sentence in its place. */
export function OneMore({ at, held, what, children }: OneMoreProps) {
  const most = mostOf(at);
  if (held < most) return children;
  return <Lead>{`${most} ${what}, as many as a shot keeps. Take one away to add another.`}</Lead>;
}
