import { useEffect } from "react";
import styled from "styled-components";
import type { DrillKind } from "../../api/types";
import { Button } from "../../controls/Button";
import { FactList } from "../../controls/FactList";
import { AnswerBox, Heading, Lead } from "../../controls/panel";
import { Answered } from "./Answered";
import { Camera } from "./Camera";
import { factsOf, settingWords, turnOf } from "./hand";
import { Knobs } from "./Knobs";
import { useDrill, type Playing } from "./useDrill";

const Stage = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 20px;
  min-height: 0;
  height: 100%;
`;

const Side = styled.div`
  display: grid;
  align-content: start;
  gap: 10px;
  overflow: auto;
`;

const Main = styled(Button)`
  min-height: 64px;
  font-size: 18px;
`;

interface PlayProps {
  kind: DrillKind;
  seed: number;
  title: string;
  /** Of the shot whose set it is; of the kind ``own``. */
  shotId?: string;
  onAgain: () => void;
}

/** One drill, from its task to what it was worth. */
export function Play({ kind, seed, title, shotId, onAgain }: PlayProps) {
  const playing = useDrill(kind, seed, shotId);
  const { drill, now, moves, pressed, saw, hint, press, result, ask, trouble } = playing;
  useKeys(playing);
  return (
    <Stage>
      <Camera playing={playing} shotId={shotId} />
      <Side>
        <Heading>{drill?.title || title}</Heading>
        <Lead>{drill?.task}</Lead>
        {drill?.nearest ? <Lead>{drill.nearest}</Lead> : null}
        {trouble && drill ? <p role="alert">{trouble}</p> : null}
        {result ? (
          <AnswerBox data-trouble={result.score < 50 ? "" : undefined} role="status">
            <strong>
              {Math.round(result.score)} of 100{result.sharp_enough ? ", sharp enough" : ""}
            </strong>
            {result.said}
          </AnswerBox>
        ) : drill ? (
          <>
            <Knobs playing={playing} />
            <Main data-weight="main" onPress={press} isDisabled={!now}>
              {drill.presses === 2 ? (pressed.length ? "Last frame here" : "First frame here") : "Press"}
            </Main>
            <Button onPress={() => now && ask.mutate(now)} isPending={ask.isPending} isDisabled={!now}>
              One move, please
            </Button>
          </>
        ) : null}
        <div aria-live="polite">{hint ? <p>{hint}</p> : saw ? <p>{saw}</p> : null}</div>
        {drill ? <FactList rows={factsOf(drill, moves, result)} /> : null}
        {drill && now ? <Lead>{settingWords(drill, now)}</Lead> : null}
        {result ? (
          <>
            <Button data-weight="main" onPress={onAgain}>
              Another one
            </Button>
            <Answered playing={playing} result={result} />
          </>
        ) : null}
      </Side>
    </Stage>
  );
}

/** Keys turn knobs and Space presses, wherever the focus is but on a button. */
function useKeys(playing: Playing) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { drill, turn, press } = playing;
      if (!drill || event.ctrlKey || event.metaKey || event.altKey) return;
      if ((event.target as HTMLElement).closest("input, textarea, select")) return;
      const found = turnOf(drill, event.key, event.shiftKey);
      if (found) {
        event.preventDefault();
        turn(found.name, found.clicks);
      } else if (event.key === " " && !event.repeat && !(event.target as HTMLElement).closest("button, a")) {
        event.preventDefault();
        press();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
}
