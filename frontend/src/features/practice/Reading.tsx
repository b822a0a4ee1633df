import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { api, dataOf } from "../../api/client";
import type { ViewAsked } from "../../api/types";
import { Heading, Lead } from "../../controls/panel";
import { Ended } from "./Ended";
import { usePresses } from "./usePresses";
import { useView } from "./useView";

const Five = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 12px;
  max-width: 1120px;
  button {
    padding: 0;
    border: 2px solid ${({ theme }) => theme.line};
    background: none;
    cursor: pointer;
    text-align: left;
    &:hover,
    &:focus-visible {
      border-color: ${({ theme }) => theme.strong};
    }
  }
  img {
    display: block;
    width: 100%;
  }
  span {
    display: block;
    padding: 4px 8px;
  }
`;

const Narrow = styled.div`
  display: grid;
  gap: 10px;
  max-width: 420px;
`;

/** Reading the magnifier: which of five is the sharpest. Keys 1 to 5 pick. */
export function Reading({ seed, title, onAgain }: { seed: number; title: string; onAgain: () => void }) {
  const drill = useQuery({
    queryKey: ["drill", "magnifier", seed],
    staleTime: Infinity,
    queryFn: () => dataOf(api.GET("/api/practice/drill", { params: { query: { kind: "magnifier", seed } } })),
  }).data;
  const [picks, setPicks] = useState<number[]>([]);
  const judge = usePresses();
  const clicks = drill?.rounds[picks.length];
  const pick = (place: number) => {
    if (!drill || !clicks || place >= clicks.length) return;
    const all = [...picks, place];
    setPicks(all);
    if (all.length === drill.rounds.length) judge.mutate({ kind: "magnifier", seed, picks: all });
  };
  useDigits(pick);
  return (
    <>
      <Heading>{title}</Heading>
      <Lead>{drill?.task}</Lead>
      {judge.data ? (
        <Narrow>
          <Ended result={judge.data} onAgain={onAgain} />
        </Narrow>
      ) : clicks ? (
        <>
          <Lead aria-live="polite">
            {picks.length + 1} of {drill?.rounds.length}
          </Lead>
          <Five>
            {clicks.map((click, place) => (
              <button key={`${picks.length}-${place}`} type="button" onClick={() => pick(place)}>
                <Magnified seed={seed} click={click} place={place} />
                <span>{place + 1}</span>
              </button>
            ))}
          </Five>
        </>
      ) : null}
    </>
  );
}

function Magnified({ seed, click, place }: { seed: number; click: number; place: number }) {
  const asked: ViewAsked = {
    kind: "magnifier",
    seed,
    own: null,
    setting: { focus: click, tilt: 0, turn: 0, stop: 2, rail: 0 },
    magnified: { from_left: 0.5, from_top: 0.5 },
    marks: false,
    moving: false,
    truth: false,
    t: 0,
    slower: 1,
    hold: "braced",
    sway_mm: null,
    subject: "still",
  };
  const { src, busy } = useView(asked);
  return src ? <img src={src} aria-busy={busy} alt={`Picture ${place + 1}`} /> : <p>…</p>;
}

function useDigits(pick: (place: number) => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const place = Number(event.key) - 1;
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      if (Number.isInteger(place) && place >= 0) pick(place);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
}
