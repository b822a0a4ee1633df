import styled from "styled-components";
import { Button } from "../../controls/Button";
import type { Editing } from "./useEditing";

const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 48px;
  padding: 4px 16px;
  border-bottom: 1px dashed ${({ theme }) => theme.trouble};
  color: ${({ theme }) => theme.trouble};
  font-weight: 550;
  p {
    flex: 1;
  }
`;

const Word = styled.span`
  color: ${({ theme }) => theme.soft};
  font-size: 12.5px;
  white-space: nowrap;
  &[data-trouble] {
    color: ${({ theme }) => theme.trouble};
  }
`;

interface SaveProps {
  editing: Pick<Editing<unknown>, "saveState" | "kept" | "undo" | "redo" | "keepMine" | "takeTheirs">;
  reachable: boolean;
}

/** Whether what is on the screen is kept, in a word, with undo and redo beside it. */
export function SaveWord({ editing, reachable }: SaveProps) {
  const words = {
    saved: "Saved",
    saving: "Saving…",
    waiting: "Not saved yet",
    refused: "Not saved: mend the marked field",
    conflict: "Not saved",
  };
  const trouble = !reachable || !["saved", "saving"].includes(editing.saveState);
  return (
    <>
      <Word role="status" {...(trouble ? { "data-trouble": "" } : {})}>
        {reachable ? words[editing.saveState] : words.waiting}
      </Word>
      <Button onPress={editing.undo} isDisabled={!editing.kept.can_undo && editing.saveState === "saved"}>
        Undo
      </Button>
      <Button onPress={editing.redo} isDisabled={!editing.kept.can_redo}>
        Redo
      </Button>
    </>
  );
}

/** What must be decided or waited for before the draft can be kept. */
export function SaveBar({ editing, reachable }: SaveProps) {
  if (editing.saveState === "conflict") {
    return (
      <Bar role="alert">
        <p>This was changed in another window. What you did here is not lost: choose.</p>
        <Button onPress={editing.keepMine}>Keep mine; theirs stays one undo away</Button>
        <Button onPress={editing.takeTheirs}>Take theirs</Button>
      </Bar>
    );
  }
  if (!reachable || editing.saveState === "waiting") {
    return (
      <Bar role="alert">
        <p>
          The program is not answering. Your changes are held in this browser and are saved as soon as it is
          back.
        </p>
      </Bar>
    );
  }
  return <span />;
}
