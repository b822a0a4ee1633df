import { useState } from "react";
import styled from "styled-components";
import { Button } from "../../controls/Button";
import type { Drill, DrillKind, ViewAsked } from "../../api/types";
import type { Playing } from "./useDrill";
import { useView } from "./useView";

const Frame = styled.div`
  position: relative;
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, auto) auto;
  align-content: start;
  gap: 8px;
  img {
    display: block;
    width: 100%;
    height: 100%;
    min-height: 0;
    object-fit: contain;
    object-position: top;
    cursor: crosshair;
    touch-action: manipulation;
  }
`;

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  p {
    font-size: 13px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** What the camera shows fills the screen; a press on it puts the magnifier there. */
export function Camera({ playing, kind, seed }: { playing: Playing; kind: DrillKind; seed: number }) {
  const { drill, now, result } = playing;
  const [magnified, setMagnified] = useState<ViewAsked["magnified"]>(null);
  const [marks, setMarks] = useState(false);
  const asked = now
    ? {
        kind,
        seed,
        setting: now,
        magnified,
        marks: marks && !result,
        moving: false,
        truth: result !== null,
        t: 0,
        slower: 1,
      }
    : null;
  const { src, lost } = useView(asked);
  return (
    <Frame>
      {src ? (
        <img
          src={src}
          alt={magnified ? "What the magnifier shows" : "What the camera shows"}
          onClick={(event) => {
            if (magnified) return setMagnified(null);
            const box = event.currentTarget.getBoundingClientRect();
            setMagnified({
              from_left: Math.min(Math.max((event.clientX - box.left) / box.width, 0), 1),
              from_top: Math.min(Math.max((event.clientY - box.top) / box.height, 0), 1),
            });
          }}
        />
      ) : (
        <p>{drill ? "The camera is starting…" : ""}</p>
      )}
      <Tools>
        <Button onPress={() => setMagnified(magnified ? null : { from_left: 0.5, from_top: 0.92 })}>
          {magnified ? "Whole frame" : "Near edge, 1:1"}
        </Button>
        <Button onPress={() => setMagnified({ from_left: 0.5, from_top: 0.08 })}>Far edge, 1:1</Button>
        <Button onPress={() => setMarks(!marks)} aria-pressed={marks}>
          {marks ? "No marks" : "Mark sharp edges"}
        </Button>
        {lost ? (
          <p role="alert">
            The picture does not come: is the server still there? Nothing that was turned is lost.
          </p>
        ) : result ? (
          <p>outlined: what was really sharp</p>
        ) : marks ? (
          <p>{magnified ? "Marks here are honest: they tell what counts as sharp." : reachWords(drill)}</p>
        ) : (
          <p>A press on the picture puts the magnifier there.</p>
        )}
      </Tools>
    </Frame>
  );
}

function reachWords(drill: Drill | undefined): string {
  if (!drill) return "";
  const times = Math.round(drill.marks_reach_um / drill.sharp_um);
  return `On the whole frame marks reach to about ${Math.round(drill.marks_reach_um)} µm of blur, ${times} times what counts as sharp.`;
}
