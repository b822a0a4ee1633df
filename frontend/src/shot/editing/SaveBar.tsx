import { memo } from "react";
import styled, { css } from "styled-components";
import { Button } from "../../controls/Button";
import type { Editing } from "./useEditing";
import type { LeftBehind } from "./useLeftBehind";

const BAR_PX = 56;

/**
 * Where the bar lies: along the lower edge, over what is there. It comes and goes by itself (an answer, another window),
 * so it makes nothing move. What scrolls in there ends with `pastBar`, so that its end can be scrolled out from under it.
 */
export const barLiesOver = css`
  position: relative;
  &:has(> [data-bar]) {
    --past-bar: ${BAR_PX}px;
  }
`;

/** Height by which something that scrolls is longer while the bar lies over its end. */
export const pastBar = "var(--past-bar, 0px)";

const Bar = styled.div.attrs({ role: "alert", "data-bar": "" })`
  position: absolute;
  inset: auto 0 0;
  z-index: 3;
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: ${BAR_PX}px;
  padding: 6px 16px;
  border-top: 1px dashed ${({ theme }) => theme.trouble};
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.trouble};
  font-weight: 550;
  p {
    flex: 1;
  }
`;

const Said = styled.span`
  color: ${({ theme }) => theme.soft};
  font-size: 12.5px;
  white-space: nowrap;
  &[data-trouble] {
    color: ${({ theme }) => theme.trouble};
  }
`;

interface SaveProps {
  editing: Pick<
    Editing<unknown>,
    "saveState" | "kept" | "undo" | "redo" | "keepMine" | "takeTheirs" | "said" | "left"
  >;
  reachable: boolean;
}

/** Of an editing what its word needs: it changes less often than the draft. */
export function savingOf({ saveState, kept, undo, redo }: SaveProps["editing"]) {
  return { saveState, undo, redo, canUndo: kept.can_undo || saveState !== "saved", canRedo: kept.can_redo };
}

export interface SaveWordProps extends Pick<Editing<unknown>, "saveState" | "undo" | "redo"> {
  reachable: boolean;
  canUndo: boolean;
  canRedo: boolean;
}

/** Whether what is on the screen is kept, in a word, with undo and redo beside it. */
export const SaveWord = memo(function SaveWord(props: SaveWordProps) {
  const { saveState, reachable, canUndo, canRedo, undo, redo } = props;
  const words = {
    saved: "Saved",
    saving: "Saving…",
    waiting: "Not saved yet",
    refused: "Not saved: mend the marked field",
    conflict: "Not saved",
    gone: "Not saved",
  };
  const trouble = !reachable || !["saved", "saving"].includes(saveState);
  return (
    <>
      <Said role="status" {...(trouble ? { "data-trouble": "" } : {})}>
        {reachable ? words[saveState] : words.waiting}
      </Said>
      <Button onPress={undo} isDisabled={!canUndo}>
        Undo
      </Button>
      <Button onPress={redo} isDisabled={!canRedo}>
        Redo
      </Button>
    </>
  );
});

interface BarProps extends SaveProps {
  /** The draft kept as a new document, where the one it was of is gone; none: it cannot be. */
  onKeepAsNew?: () => void;
  /** Bring it back, where it was put away in another window. */
  onBringBack?: () => void;
}

type Standing = "conflict" | "gone" | "waiting" | "refused" | "removed" | "left" | null;

/** What stands against keeping the draft, the gravest first; null: nothing. */
export function standsAgainst(
  { saveState, said, kept, left }: SaveProps["editing"],
  reachable: boolean,
): Standing {
  if (saveState === "conflict" || saveState === "gone") return saveState;
  if (!reachable || saveState === "waiting") return "waiting";
  if (saveState === "refused" && said) return "refused";
  if (kept.removed) return "removed";
  return left.drafts.length ? "left" : null;
}

/** What must be decided or waited for before the draft can be kept, in the words of whoever refused it. */
export function SaveBar({ editing, reachable, onKeepAsNew, onBringBack }: BarProps) {
  const { said, left, keepMine, takeTheirs } = editing;
  switch (standsAgainst(editing, reachable)) {
    case "conflict":
      return (
        <Bar>
          <p>This was changed in another window. What you did here is not lost: choose.</p>
          <Button onPress={keepMine}>Keep mine; theirs stays one undo away</Button>
          <Button onPress={takeTheirs}>Take theirs</Button>
        </Bar>
      );
    case "gone":
      return (
        <Bar>
          <p>{said || "It is not kept here any more."} What you see is held in this browser.</p>
          {onKeepAsNew ? <Button onPress={onKeepAsNew}>Keep it as a new one</Button> : null}
        </Bar>
      );
    case "waiting":
      return (
        <Bar>
          <p>
            {said && reachable ? `${said} ` : "The program is not answering. "}
            Your changes are held in this browser and are saved as soon as that is possible.
          </p>
        </Bar>
      );
    case "refused":
      return (
        <Bar>
          <p>Not saved: {said} The next change is tried again.</p>
        </Bar>
      );
    case "removed":
      return (
        <Bar>
          <p>This was put away, in another window or before. It is kept there, and so is what you change.</p>
          {onBringBack ? <Button onPress={onBringBack}>Bring it back</Button> : null}
        </Bar>
      );
    case "left":
      return <LeftDraft {...left} />;
    case null:
      return null;
  }
}

/** A draft that another window left, to be taken up or thrown away. */
function LeftDraft({ drafts, take, drop }: LeftBehind) {
  const [draft] = drafts;
  if (!draft) return null;
  return (
    <Bar>
      <p>
        Another window left a draft of this unsaved
        {draft.at ? `, ${new Date(draft.at).toLocaleString()}` : ""}
        {drafts.length > 1 ? ` (and ${drafts.length - 1} more)` : ""}.
      </p>
      <Button onPress={() => take(draft.key)}>Take it up; this one stays one undo away</Button>
      <Button onPress={() => drop(draft.key)}>Throw it away</Button>
    </Bar>
  );
}
