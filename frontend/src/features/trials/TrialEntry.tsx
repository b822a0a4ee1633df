import styled from "styled-components";
import { Refusal, sentenceOf } from "../../api/client";
import type { Trial } from "../../api/types";
import { Button } from "../../controls/Button";
import { StopsCurve } from "./StopsCurve";
import { isOpen, type TrialsHeld } from "./useTrials";

const Entry = styled.article`
  padding: 16px 0 18px;
  border-top: 1px solid ${({ theme }) => theme.line};
  max-width: 760px;
  h2 {
    font-size: 18px;
    line-height: 1.3;
    overflow-wrap: anywhere;
  }
  ul {
    margin: 8px 0;
    padding-left: 18px;
  }
  li {
    overflow-wrap: anywhere;
  }
`;

const Soft = styled.p`
  color: ${({ theme }) => theme.soft};
  margin: 3px 0 8px;
  overflow-wrap: anywhere;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
`;

/** The end of a path, by which people know a folder. */
const lastOf = (path: string) => path.split(/[\\/]/).filter(Boolean).slice(-2).join("/");

/** One trial: a sentence, the figures behind it, and one button. */
export function TrialEntry({ trial, held }: { trial: Trial; held: TrialsHeld }) {
  const { judge } = held;
  const result = trial.result;
  const judged = (believed: boolean, putAside: boolean, over = false) =>
    judge.mutate({ trial, believed, putAside, over });
  const mine = judge.variables?.trial.trial_id === trial.trial_id;
  return (
    <Entry aria-label={result?.sentence ?? "A trial under way"}>
      <h2>{result?.sentence ?? (isOpen(trial) ? "Measuring…" : trial.message || "Stopped.")}</h2>
      <Soft>
        {new Date(trial.asked_at).toLocaleDateString(undefined, { dateStyle: "long" })}
        {trial.asked.name && trial.asked.folder ? `, ${trial.asked.name}` : ""}
        {trial.asked.folder
          ? `, ${result ? `${result.used} frames in ` : ""}${lastOf(trial.asked.folder)}`
          : ", at a shot"}
        {isOpen(trial) ? ` (${Math.round(100 * trial.share)} %)` : ""}
        {trial.used_in ? ` · used by ${trial.used_in}` : ""}
      </Soft>
      {result?.stops ? <StopsCurve found={result.stops} /> : null}
      {result && result.warnings.length + result.frames.length > 0 ? (
        <ul>
          {result.warnings.map((words) => (
            <li key={words}>{words}</li>
          ))}
          {result.frames.map((frame) => (
            <li key={frame.file}>
              <strong>{frame.file}</strong>: {frame.problem}
            </li>
          ))}
        </ul>
      ) : null}
      {mine && judge.error ? (
        <>
          <p role="alert">{sentenceOf(judge.error)}</p>
          {judge.error instanceof Refusal && judge.error.problem.code === "trial.disagrees" ? (
            <Row>
              <Button onPress={() => judged(true, false, true)}>Use this one in its place</Button>
              <Button onPress={() => judge.reset()}>Keep the older one</Button>
            </Row>
          ) : null}
        </>
      ) : null}
      {result ? (
        <Row>
          {trial.believed ? (
            <Button onPress={() => judged(false, false)} isPending={judge.isPending}>
              Do not use it any more
            </Button>
          ) : trial.usable && !result.refused ? (
            <Button data-weight="main" onPress={() => judged(true, false)} isPending={judge.isPending}>
              Use this from now on
            </Button>
          ) : null}
          {trial.believed ? null : (
            <Button onPress={() => judged(false, !trial.put_aside)} isPending={judge.isPending}>
              {trial.put_aside ? "Bring it back" : "Put it aside"}
            </Button>
          )}
        </Row>
      ) : null}
    </Entry>
  );
}
