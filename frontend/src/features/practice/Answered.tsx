import { useState } from "react";
import styled from "styled-components";
import type { PracticeResult } from "../../api/types";
import { Button } from "../../controls/Button";
import type { Playing } from "./useDrill";

const Steps = styled.ol`
  padding-left: 20px;
  list-style: decimal;
  li {
    margin-bottom: 4px;
    line-height: 1.35;
  }
`;

/** How it would have been done, one step after the other, each shown in the picture. */
export function Answered({ playing, result }: { playing: Playing; result: PracticeResult }) {
  const [shown, setShown] = useState(0);
  const steps = result.steps.length ? result.steps : [{ words: "", setting: result.answer }];
  const next = steps[shown];
  if (!result.steps.length && result.kind === "ends") return null;
  return (
    <>
      {shown ? (
        <Steps aria-live="polite">
          {steps.slice(0, shown).map((step) => (
            <li key={step.words}>{step.words}</li>
          ))}
        </Steps>
      ) : null}
      {next ? (
        <Button
          onPress={() => {
            // What the press left is put back first: the answer goes from the start.
            playing.setSetting(next.setting);
            setShown(shown + 1);
          }}
        >
          {shown ? "The next step" : "Show the answer"}
        </Button>
      ) : (
        <p>That is the answer: look at it closely.</p>
      )}
    </>
  );
}
