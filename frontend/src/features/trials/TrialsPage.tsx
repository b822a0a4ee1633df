import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import { Button } from "../../controls/Button";
import { TopBar } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";
import { AskTrial } from "./AskTrial";
import { TrialEntry } from "./TrialEntry";
import { useTrials } from "./useTrials";

const Page = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100vh;
  height: 100dvh;
  min-height: 560px;
`;

const Columns = styled.main`
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  min-height: 0;
  & > * {
    overflow: auto;
    padding: 16px 20px 30px;
  }
  & > :last-child {
    border-left: 1px solid ${({ theme }) => theme.line};
  }
`;

const Head = styled.header`
  margin-bottom: 14px;
  h1 {
    font-size: 22px;
    letter-spacing: -0.01em;
  }
  p {
    max-width: 620px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** Gear measured instead of believed: one list of what was found, when, and where it is used. */
export function TrialsPage() {
  const held = useTrials();
  const [aside, setAside] = useState(false);
  useArrival("Trials");
  const shown = held.trials.filter((trial) => aside || !trial.put_aside);
  const hidden = held.trials.length - shown.length;
  return (
    <Page>
      <TopBar title="Trials" />
      <Columns>
        <section aria-label="Measure">
          <AskTrial held={held} />
        </section>
        <section aria-label="What was measured">
          <Head>
            <h1>What was measured</h1>
            <p>
              {shown.length || held.loading
                ? "What is used from here goes into the kit, and so into every shot that takes the piece from it anew."
                : "Nothing yet. A lens’s data sheet says nothing of its best stop; twenty frames of a printed page do."}
            </p>
          </Head>
          {held.failed ? <p role="alert">{sentenceOf(held.failed)}</p> : null}
          {shown.map((trial) => (
            <TrialEntry key={trial.trial_id} trial={trial} held={held} />
          ))}
          {hidden || aside ? (
            <Button onPress={() => setAside(!aside)}>
              {aside ? "Hide what was put aside" : `Show what was put aside (${hidden})`}
            </Button>
          ) : null}
        </section>
      </Columns>
    </Page>
  );
}
