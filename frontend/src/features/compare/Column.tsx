import { shutter } from "../../api/shutter";
import type { MouseEvent, ReactNode } from "react";
import styled from "styled-components";
import type { Plan, Shot, WayAnswer } from "../../api/types";
import { figures, frames, length, percent, seconds, stop } from "../../units/format";
import { usePreferences } from "../../look/preferences";
import { FactList } from "../../controls/FactList";
import { usePreview, type Looked } from "./usePreview";

const Box = styled.article`
  min-width: 0;
  h2 {
    font-size: 14.5px;
    font-weight: 680;
    line-height: 1.25;
    min-height: 2.5em;
  }
  ul {
    padding-left: 18px;
    color: ${({ theme }) => theme.trouble};
    font-size: 12.5px;
  }
`;

const Pane = styled.div`
  position: relative;
  aspect-ratio: 3 / 2;
  margin: 6px 0 10px;
  overflow: hidden;
  border: 1px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.surface};
  cursor: zoom-in;
  img {
    position: absolute;
    left: 50%;
    top: 50%;
    transform: translate(-50%, -50%);
    max-width: none;
  }
  img[data-whole] {
    width: 100%;
    height: 100%;
    object-fit: contain;
  }
  p {
    padding: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

const Reason = styled.p`
  font-size: 12.5px;
  line-height: 1.35;
  color: ${({ theme }) => theme.soft};
  margin-bottom: 8px;
  min-height: 2.7em;
`;

interface ColumnProps {
  /** The shot that it is a way of. */
  shot: Shot;
  plan: Plan;
  way: WayAnswer;
  /** Of another shot: its name ... */
  of?: ReactNode;
  /** ... and what can be chosen of it. */
  foot?: ReactNode;
  looked: Looked;
  onLook: (fromLeft: number, fromTop: number) => void;
}

function costWords(plan: Plan): string {
  if (plan.gear_cost === null) return "not typed";
  const without = plan.gear_cost_unknown ? `, ${plan.gear_cost_unknown} not typed` : "";
  return `${figures(plan.gear_cost, 6)}${without}`;
}

/** One pinned way: its picture, its price, and why it ranks where it does. */
export function Column({ shot, plan, way, of, foot, looked, onLook }: ColumnProps) {
  const { units } = usePreferences();
  const preview = usePreview(shot, way.id, looked);
  const onClick = (event: MouseEvent<HTMLDivElement>) => {
    if (looked.zoom !== "frame") return;
    const box = event.currentTarget.getBoundingClientRect();
    onLook((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
  };
  const double = looked.zoom === "double";
  const { steady } = way;
  const rows: [string, string][] = [
    ["Holds", way.points_held != null ? `${way.points_held} points` : percent(way.cover)],
    ["Least contrast", percent(Math.max(way.worst_contrast, 0))],
    ["Frames", way.frames ? frames(way.frames) : "—"],
    ["Takes", way.frames ? seconds(way.time_s) : "—"],
    ["Works as", stop(way.effective_f_number)],
    ["Shutter", shutter(steady.shutter_s)],
    ["Longest, subject", steady.subject_s == null ? "it rests" : shutter(steady.subject_s)],
    [
      "Longest, hand",
      steady.hand_s != null
        ? shutter(steady.hand_s)
        : steady.support_s != null
          ? `${shutter(steady.support_s)} on the support`
          : "on a support",
    ],
    ["Rail settles in", steady.settle_s == null ? "—" : seconds(steady.settle_s)],
    [
      "Background blur",
      steady.background_um == null
        ? "—"
        : `${length(steady.background_um / 1000, units)}, ${((steady.background_share ?? 0) * 100).toFixed(1)} %`,
    ],
    ["Room", plan.reach ? length(way.back_off?.room_mm ?? plan.reach.working_distance_mm, units) : "—"],
    ["Gear costs", costWords(plan)],
  ];
  return (
    <Box aria-label={way.title}>
      <h2>
        {of ? <>{of}: </> : `${way.rank}. `}
        {way.title}
      </h2>
      <Pane onClick={onClick} aria-busy={preview.busy}>
        {preview.url ? (
          <img
            src={preview.url}
            alt={`What ${way.title} would look like`}
            {...(looked.zoom === "frame" ? { "data-whole": "" } : {})}
            style={double ? { width: 960, imageRendering: "pixelated" } : undefined}
          />
        ) : (
          <p>{preview.said ?? "Drawing…"}</p>
        )}
      </Pane>
      <Reason>{way.reason}</Reason>
      <FactList rows={rows} />
      {way.against.length ? (
        <ul>
          {way.against.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      ) : null}
      {foot}
    </Box>
  );
}
