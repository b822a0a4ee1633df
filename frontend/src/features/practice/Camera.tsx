import { useState } from "react";
import { Link } from "react-aria-components";
import styled from "styled-components";
import { Button } from "../../controls/Button";
import { fonts } from "../../look/theme";
import type { Drill, ViewAsked } from "../../api/types";
import { placeIn } from "./hand";
import type { Playing } from "./useDrill";
import { useView } from "./useView";

const Frame = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, auto) auto;
  align-content: start;
  gap: 8px;
`;

const Picture = styled.div`
  position: relative;
  justify-self: start;
  width: min(100%, calc((100dvh - 210px) * 640 / 427));
  img {
    display: block;
    width: 100%;
    cursor: crosshair;
    touch-action: manipulation;
  }
`;

const Mark = styled.div`
  position: absolute;
  pointer-events: none;
  width: 18px;
  height: 18px;
  margin: -9px 0 0 -9px;
  border: 1.5px solid #fff;
  outline: 1.5px solid #111;
  border-radius: 50%;
  span {
    position: absolute;
    left: 22px;
    top: -2px;
    padding: 0 4px;
    font: 500 12px ${fonts.text};
    white-space: nowrap;
    color: #fff;
    background: rgb(0 0 0 / 70%);
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

/** Of the places, that get a button of their own: the near and the far end. */
const CLOSE = 2;

/** What the camera shows fills the screen; a press on it puts the magnifier there. */
export function Camera({ playing, shotId }: { playing: Playing; shotId?: string }) {
  const { drill, now, result, which, trouble } = playing;
  const [magnified, setMagnified] = useState<ViewAsked["magnified"]>(null);
  const [marks, setMarks] = useState(false);
  const asked: ViewAsked | null =
    drill && now
      ? {
          ...which,
          setting: now,
          magnified,
          marks: marks && !result,
          moving: false,
          truth: result !== null,
          t: 0,
          slower: 1,
          hold: "braced",
          sway_mm: null,
          subject: "still",
        }
      : null;
  const { src, lost, busy } = useView(asked);
  const named = drill?.own && !magnified ? drill.places : [];
  return (
    <Frame>
      {src ? (
        <Picture>
          <img
            src={src}
            aria-busy={busy}
            alt={magnified ? "What the magnifier shows" : "What the camera shows"}
            onClick={(event) =>
              setMagnified(magnified ? null : placeIn(event.currentTarget.getBoundingClientRect(), event))
            }
          />
          {named.map((place, index) => (
            <Mark key={index} style={{ left: `${100 * place.from_left}%`, top: `${100 * place.from_top}%` }}>
              <span style={place.from_left > 0.7 ? { left: "auto", right: 22 } : undefined}>
                {place.name}
              </span>
            </Mark>
          ))}
        </Picture>
      ) : trouble ? (
        <p role="alert" style={{ maxWidth: 520 }}>
          {trouble} {shotId ? <Link href={`/shots/${shotId}/plane`}>To its Plane station</Link> : null}
        </p>
      ) : (
        <p>{drill ? "The camera is starting…" : ""}</p>
      )}
      {drill ? (
        <Tools>
          {magnified ? <Button onPress={() => setMagnified(null)}>Whole frame</Button> : null}
          {drill.places.slice(0, CLOSE).map((place, index) => (
            <Button
              key={index}
              onPress={() =>
                setMagnified({ from_left: held(place.from_left), from_top: held(place.from_top) })
              }
            >
              {place.name.replace(/^the /, "")}, 1:1
            </Button>
          ))}
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
      ) : null}
    </Frame>
  );
}

const held = (share: number) => Math.min(Math.max(share, 0), 1);

function reachWords(drill: Drill): string {
  const times = Math.round(drill.marks_reach_um / drill.sharp_um);
  if (times <= 1) return "Marks tell what counts as sharp.";
  return `On the whole frame marks reach to about ${Math.round(drill.marks_reach_um)} µm of blur, ${times} times what counts as sharp.`;
}
