import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { api, dataOf } from "../../api/client";
import { Button } from "../../controls/Button";
import { Check as Tick } from "../../controls/Check";
import { Pick } from "../../controls/Pick";
import { Heading, Lead } from "../../controls/panel";
import { Ended } from "./Ended";
import { usePresses } from "./usePresses";
import { useRocking, type Rocked } from "./useRocking";

const PRESSES = 10;
const SLOWER = 2;
const HOLDS = [
  { id: "rested", label: "rested on something" },
  { id: "braced", label: "elbows braced" },
  { id: "standing", label: "standing free" },
] as const;
const OWN = "own";
const SUBJECTS = [
  { id: "still", label: "holds still" },
  { id: "draught", label: "stirs in a draught" },
  { id: "alive", label: "is alive, and jumps" },
] as const;

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
  const [held, setHeld] = useState<string>("braced");
  const told = useQuery({
    queryKey: ["practice"],
    queryFn: () => dataOf(api.GET("/api/practice/results")),
  }).data;
  const own = told?.own_sway_mm ?? null;
  const holds =
    own === null ? HOLDS : [...HOLDS, { id: OWN, label: `by your own hands, ${told?.own_sway_words}` }];
  const [subject, setSubject] = useState<Rocked["subject"]>("still");
  const rocked: Rocked = {
    slower: slow ? SLOWER : 1,
    hold: held === OWN ? "braced" : (held as Rocked["hold"]),
    sway_mm: held === OWN ? own : null,
    subject,
  };
  const { src, lost, now } = useRocking(seed, rocked, result === null);
  /** Ten presses of one kind: what is chosen anew begins anew. */
  const anew =
    <Value,>(set: (value: Value) => void) =>
    (value: Value) => {
      set(value);
      setTimes([]);
    };
  const press = () => {
    const at = now();
    if (at === null || times.length >= PRESSES) return;
    const all = [...times, at];
    setTimes(all);
    if (all.length === PRESSES) judge.mutate({ kind: "rock", seed, times: all, ...rocked });
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
            <Pick label="The camera is held" value={held} options={holds} onChange={anew(setHeld)} />
            <Pick
              label="The subject"
              value={subject}
              options={SUBJECTS}
              onChange={(id) => anew(setSubject)(id as Rocked["subject"])}
            />
            <Tick label="half as fast" value={slow} onChange={anew(setSlow)} />
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
