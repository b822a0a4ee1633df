import { useId } from "react";
import styled, { useTheme } from "styled-components";
import type { Plan, WayAnswer } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import type { Viewport } from "../../drawing/viewport";
import { scaleWords } from "../../drawing/scaleWords";
import { length, percent, stop } from "../../units/format";
import { Bands, Slanted, trapezoid } from "../../shot/SharpMarks";

const Picture = styled.svg`
  display: block;
  position: absolute;
  inset: 0;
  text {
    font-size: 12px;
  }
`;

interface StageProps {
  view: Viewport;
  plan: Plan;
  way: WayAnswer | null;
  depth: number;
  /** Where the plan's nearest point stands in the drawing, mm; not 0 only while it is dragged. */
  shift: number;
}

/** The side elevation, true to scale in both directions: field, what must be sharp, and what is. */
export function Stage({ view, plan, way, depth, shift }: StageProps) {
  const theme = useTheme();
  const { units } = usePreferences();
  const titleId = useId();
  const reach = plan.reach;
  if (!reach) return null;
  const focus = (plan.focus_behind_nearest_mm ?? 0) + shift;
  const halfAt = (place: number) =>
    ((reach.frame_height_mm / 2) * Math.max(reach.entrance_pupil_mm + place - focus, 0)) /
    reach.entrance_pupil_mm;
  const tilted = way !== null && way.frames > 0 && (way.id.startsWith("tilt") || way.id === "strip");
  const near = shift;
  const far = shift + depth;
  const summary = way
    ? `${way.title}: ${percent(way.cover)} of ${length(depth, units)} is sharp, ${way.note}.`
    : "No way to compare yet.";
  return (
    <Picture width={view.width} height={view.height} role="img" aria-labelledby={titleId}>
      <title id={titleId}>{`Side view to scale. ${summary}`}</title>
      <line
        x1={0}
        x2={view.width}
        y1={view.y(0)}
        y2={view.y(0)}
        stroke={theme.soft}
        strokeDasharray="14 4 2 4"
        strokeWidth={1}
      />
      <FieldEdge view={view} halfAt={halfAt} />
      <polygon
        points={trapezoid(view, near, far, halfAt)}
        fill={theme.subjectFill}
        stroke={theme.subject}
        strokeWidth={1.2}
      />
      {way && !tilted ? <Bands view={view} way={way} shift={shift} halfAt={halfAt} /> : null}
      {tilted && plan.plane ? (
        <Slanted view={view} plane={plan.plane} way={way} half={halfAt(focus)} shift={shift} />
      ) : null}
      <DepthLabel view={view} near={near} far={far} text={`${length(depth, units)} must be sharp`} />
      <Camera view={view} text={`${length(reach.nearest_point_mm, units)} to the lens`} />
      <Magnifying view={view} text={scaleWords(view.pxPerMm)} />
      {way && way.frames === 1 && !tilted ? (
        <text
          x={view.x(focus)}
          y={view.height - 8}
          textAnchor="middle"
          fill={theme.ink}
          stroke={theme.ground}
          strokeWidth={4}
          paintOrder="stroke"
        >
          {stop(way.f_number)} focused here
        </text>
      ) : null}
    </Picture>
  );
}

/** The edges of the frame: what the camera takes in. */
function FieldEdge({ view, halfAt }: { view: Viewport; halfAt: (place: number) => number }) {
  const theme = useTheme();
  return (
    <>
      {[1, -1].map((side) => (
        <line
          key={side}
          x1={0}
          y1={view.y(side * halfAt(view.from))}
          x2={view.width}
          y2={view.y(side * halfAt(view.to))}
          stroke={theme.line}
          strokeWidth={1.2}
        />
      ))}
    </>
  );
}

function DepthLabel({ view, near, far, text }: { view: Viewport; near: number; far: number; text: string }) {
  const theme = useTheme();
  return (
    <g>
      {[near, far].map((place, index) => (
        <line
          key={index}
          x1={view.x(place)}
          x2={view.x(place)}
          y1={18}
          y2={view.height}
          stroke={theme.subject}
          strokeDasharray="3 3"
        />
      ))}
      <text x={(view.x(near) + view.x(far)) / 2} y={13} textAnchor="middle" fontWeight={650} fill={theme.ink}>
        {text}
      </text>
    </g>
  );
}

/** The camera stands to the left, nearer than drawn: a break line says so. */
function Camera({ view, text }: { view: Viewport; text: string }) {
  const theme = useTheme();
  const y = view.y(0);
  return (
    <g>
      <rect x={10} y={y - 30} width={20} height={60} fill={theme.strong} />
      <rect x={30} y={y - 20} width={16} height={40} fill={theme.subject} />
      <path d={`M58 ${y - 44}l6 22-10 22 10 22-6 22`} fill="none" stroke={theme.strong} strokeWidth={1.2} />
      <text x={10} y={y + 60} fill={theme.soft} stroke={theme.ground} strokeWidth={4} paintOrder="stroke">
        {text}
      </text>
    </g>
  );
}

function Magnifying({ view, text }: { view: Viewport; text: string }) {
  const theme = useTheme();
  return (
    <text x={view.width - 8} y={13} textAnchor="end" fill={theme.soft}>
      {text}
    </text>
  );
}
