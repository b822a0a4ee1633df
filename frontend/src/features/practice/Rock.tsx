import { useEffect, useState } from "react";
import styled from "styled-components";
import { Button } from "../../controls/Button";
import { Check as Tick } from "../../controls/Check";
import { Heading, Lead } from "../../controls/panel";
import { Ended } from "./Ended";
import { usePresses } from "./usePresses";
import { useRocking } from "./useRocking";

const PRESSES = 10;
const SLOWER = 2;

const Stage = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 20px;
  min-height: 0;
  height: 100%;
  img {
    display: block;
    width: 100%;
    max-height: 100%;
    object-fit: contain;
    object-position: top;
  }
`;

const Side = styled.div`
  display: grid;
  align-content: start;
  gap: 10px;
`;

const Main = styled(Button)`
  min-height: 96px;
  font-size: 20px;
`;

/** Focusing by rocking: the press must lead what is seen. Judged by the frame on the screen at the moment of the press. */
export function Rock({ seed, title, onAgain }: { seed: number; title: string; onAgain: () => void }) {
  const [times, setTimes] = useState<number[]>([]);
  const [slow, setSlow] = useState(() => matchMedia("(prefers-reduced-motion: reduce)").matches);
  const judge = usePresses();
  const result = judge.data ?? null;
  const slower = slow ? SLOWER : 1;
  const { src, lost, now } = useRocking(seed, slower, result === null);
  const press = () => {
    const at = now();
    if (at === null || times.length >= PRESSES) return;
    const all = [...times, at];
    setTimes(all);
    if (all.length === PRESSES) judge.mutate({ kind: "rock", seed, times: all, slower });
  };
  useSpace(press);
  return (
    <Stage>
      {src ? (
        <img src={src} alt="What the camera shows while the hand rocks" />
      ) : (
        <p>The camera is starting…</p>
      )}
      <Side>
        <Heading>{title}</Heading>
        <Lead>
          The hand carries the camera to and fro. Press ten times, each just before the letters come up.
        </Lead>
        {lost ? <p role="alert">The picture does not come: is the server still there?</p> : null}
        {result ? (
          <Ended result={result} onAgain={onAgain} />
        ) : (
          <>
            <Main data-weight="main" onPress={press} isDisabled={!src || judge.isPending}>
              Press
            </Main>
            <p aria-live="polite">
              {times.length} of {PRESSES} pressed
            </p>
            <Tick
              label="half as fast"
              value={slow}
              onChange={(on) => {
                setSlow(on);
                setTimes([]);
              }}
            />
          </>
        )}
      </Side>
    </Stage>
  );
}

function useSpace(act: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const at = event.target as HTMLElement;
      if (event.key !== " " || event.repeat || at.closest("button, input, label, a")) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
}
