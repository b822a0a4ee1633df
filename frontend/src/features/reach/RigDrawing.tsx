import { useId } from "react";
import styled, { useTheme } from "styled-components";
import type { Reach } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { makeViewport, type Viewport } from "../../drawing/viewport";
import { Rule } from "../../drawing/Rule";
import { useSize } from "../../drawing/useSize";
import { length, size, times } from "../../units/format";
import { useBench } from "../../shot/ShotContext";
import { PieceMarks } from "./PieceMarks";

const Box = styled.div`
  position: relative;
  min-height: 250px;
  overflow: hidden;
`;

const BODY_HEIGHT_MM = 92;
const LABEL_PX = 54;
/** As wide as a frame's size is written. */
const CAPTION_PX = 92;

const Nothing = styled.p`
  margin: 50px auto;
  max-width: 420px;
  color: ${({ theme }) => theme.soft};
`;

/** The whole rig from sensor to subject, to one scale, with its rule from the sensor mark. */
export function RigDrawing() {
  const { plan } = useBench();
  const { units } = usePreferences();
  const theme = useTheme();
  const titleId = useId();
  const [box, measured] = useSize<HTMLDivElement>();
  const reach = plan?.reach;
  const { width, height } = measured;
  if (!reach) {
    return (
      <Box ref={box}>
        <Nothing>{plan ? "Nothing can be drawn yet; what is marked at the left says why." : ""}</Nothing>
      </Box>
    );
  }
  const end = reach.subject_to_sensor_mm;
  const before = 45;
  const span = before + end + Math.max(reach.frame_width_mm * 0.1, end * 0.16);
  const drawingHeight = Math.max(height - 56, 100);
  const tallest = Math.max(reach.frame_height_mm * 1.1, BODY_HEIGHT_MM);
  const scale = Math.min((width || 1) / span, (drawingHeight - 2 * LABEL_PX) / tallest);
  const view = makeViewport(width || 1, drawingHeight, -before + (width || 1) / scale / 2, scale);
  const words = reach.pieces.map((piece) => `${piece.name} ${length(piece.length_mm, units)}`).join(", ");
  return (
    <Box ref={box}>
      {width > 50 ? (
        <>
          <svg width={width} height={drawingHeight} role="img" aria-labelledby={titleId}>
            <title id={titleId}>
              {`The rig to scale: ${words}, then ${length(reach.working_distance_mm, units)} to the plane of focus.`}
            </title>
            <line
              x1={0}
              x2={width}
              y1={view.y(0)}
              y2={view.y(0)}
              stroke={theme.soft}
              strokeDasharray="14 4 2 4"
            />
            <PieceMarks pieces={reach.pieces} x={view.x} axis={view.y(0)} pxPerMm={scale} />
            <Names reach={reach} view={view} />
            <SensorMark reach={reach} view={view} />
            <Field reach={reach} view={view} />
            <Room reach={reach} view={view} />
          </svg>
          <span style={{ color: theme.soft, fontSize: 12 }}>{units} from the sensor mark</span>
          <Rule
            view={view}
            units={units}
            from={end - (plan.focus_behind_nearest_mm ?? 0)}
            to={end - (plan.focus_behind_nearest_mm ?? 0) + plan.depth_mm}
          />
        </>
      ) : null}
    </Box>
  );
}

interface PartProps {
  reach: Reach;
  view: Viewport;
}

const CHARACTER_PX = 6.3;

/** Names under the pieces, clear of the room before the lens, each on the first line where it runs into nothing. */
function Names({ reach, view }: PartProps) {
  const theme = useTheme();
  const front = view.x(reach.lens_front_to_sensor_mm);
  const top = view.y(0) + (BODY_HEIGHT_MM / 2) * view.pxPerMm + 15;
  const ends: number[] = [];
  const leaders: { x: number; line: number }[] = [];
  const isCrossed = (from: number, to: number, line: number) =>
    leaders.some((each) => each.line > line && each.x > from - 4 && each.x < to + 4);
  return (
    <>
      {reach.pieces.slice(1).map((piece) => {
        const middle = view.x(piece.from_sensor_mm + piece.length_mm / 2);
        const words = `${piece.name}${piece.reversed ? ", turned" : ""}`;
        const half = (words.length * CHARACTER_PX) / 2;
        const x = Math.max(Math.min(middle, front - half - 4), half + 4);
        let line = ends.findIndex((end, at) => x - half > end + 8 && !isCrossed(x - half, x + half, at));
        if (line < 0) line = ends.length < 3 ? ends.length : ends.indexOf(Math.min(...ends));
        ends[line] = x + half;
        leaders.push({ x: middle, line });
        return (
          <g key={piece.index}>
            <line
              x1={middle}
              x2={middle}
              y1={view.y(-piece.width_mm / 2)}
              y2={top - 11 + line * 14}
              stroke={theme.line}
            />
            <text x={x} y={top + line * 14} textAnchor="middle" fontSize={12} fill={theme.soft}>
              {words}
            </text>
          </g>
        );
      })}
    </>
  );
}

function SensorMark({ reach, view }: PartProps) {
  const theme = useTheme();
  const axis = view.y(0);
  const half = (reach.sensor_height_mm / 2) * view.pxPerMm;
  const top = axis - (BODY_HEIGHT_MM / 2) * view.pxPerMm;
  return (
    <>
      <line
        x1={view.x(0)}
        x2={view.x(0)}
        y1={top - 12}
        y2={axis + half}
        stroke={theme.soft}
        strokeDasharray="3 3"
      />
      <line
        x1={view.x(0)}
        x2={view.x(0)}
        y1={axis - half}
        y2={axis + half}
        stroke={theme.sharp}
        strokeWidth={4}
      />
      <text x={Math.max(view.x(0), 36)} y={top - 18} textAnchor="middle" fontSize={12} fill={theme.soft}>
        sensor mark
      </text>
    </>
  );
}

/** What the frame takes in, at the plane of focus. */
function Field({ reach, view }: PartProps) {
  const { units } = usePreferences();
  const theme = useTheme();
  const axis = view.y(0);
  const end = reach.subject_to_sensor_mm;
  const half = (reach.frame_height_mm / 2) * view.pxPerMm;
  // Behind an objective or a facing lens the rays run side by side: the pupil is endlessly far.
  const pupil = Math.max(end - reach.entrance_pupil_mm, -1e4);
  const from = Math.max(pupil, reach.lens_front_to_sensor_mm);
  const startHalf = half * Math.max(0, 1 - (end - from) / Math.min(reach.entrance_pupil_mm, 1e4 + end));
  const above = Math.max(axis - half, 46);
  // Clear of the lens where there is little room before it.
  const said = Math.max(view.x(end), view.x(reach.lens_front_to_sensor_mm) + CAPTION_PX / 2);
  return (
    <>
      {[1, -1].map((side) => (
        <line
          key={side}
          x1={view.x(from)}
          y1={axis + side * startHalf}
          x2={view.x(end)}
          y2={axis + side * half}
          stroke={theme.sharpEdge}
          strokeWidth={1}
        />
      ))}
      <rect
        x={view.x(end) - 2}
        y={axis - half}
        width={4}
        height={Math.max(half * 2, 1)}
        fill={theme.sharp}
        stroke={theme.sharpEdge}
      />
      <text x={said} y={above - 24} textAnchor="middle" fontWeight={650} fontSize={19} fill={theme.ink}>
        {times(reach.magnification)}
      </text>
      <text x={said} y={above - 8} textAnchor="middle" fontSize={12} fill={theme.ink}>
        {size(reach.frame_width_mm, reach.frame_height_mm, units)}
      </text>
    </>
  );
}

function Room({ reach, view }: PartProps) {
  const { units } = usePreferences();
  const theme = useTheme();
  const [front, end] = [reach.lens_front_to_sensor_mm, reach.subject_to_sensor_mm];
  if (reach.working_distance_mm <= 0) {
    return (
      <text x={view.x(end)} y={view.height - 20} textAnchor="middle" fontSize={13} fill={theme.trouble}>
        the focus falls inside the lens
      </text>
    );
  }
  const y = Math.min(
    view.y(0) + Math.max((reach.frame_height_mm / 2) * view.pxPerMm, 30) + 26,
    view.height - 10,
  );
  const words = `${length(reach.working_distance_mm, units)} to work in`;
  // Over its line where that is long enough; else beside it, clear of the lens.
  const isOver = view.x(end) - view.x(front) > words.length * CHARACTER_PX * 1.2;
  return (
    <g stroke={theme.ink}>
      <line x1={view.x(front)} x2={view.x(end)} y1={y} y2={y} />
      {[front, end].map((place) => (
        <line key={place} x1={view.x(place)} x2={view.x(place)} y1={y - 6} y2={y + 6} />
      ))}
      <text
        x={isOver ? (view.x(front) + view.x(end)) / 2 : view.x(end) + 10}
        y={isOver ? y - 6 : y + 4}
        textAnchor={isOver ? "middle" : "start"}
        fontWeight={650}
        fontSize={13}
        fill={theme.ink}
        stroke="none"
      >
        {words}
      </text>
    </g>
  );
}
