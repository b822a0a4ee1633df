import type { KeyboardEvent, PointerEvent } from "react";
import { memo, useRef, useState } from "react";
import styled, { useTheme } from "styled-components";
import type { BlurMap, PlaneSection, PointAnswer, Shot } from "../../api/types";
import { useSize } from "../../drawing/useSize";
import { useBench } from "../../shot/ShotContext";
import { fitted } from "../../drawing/picture";
import { contours, pathOf } from "../../drawing/contours";
import { mapOf } from "./contours";
import { atStopOf, blurIn } from "../../shot/tilted";
import { Magnifier } from "./Magnifier";
import { planeOf, share, withPoint } from "../../shot/moves";
import { useHands } from "./hands";
import { PointMark } from "./PointMark";

const Box = styled.div`
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  svg {
    position: absolute;
    touch-action: none;
  }
  text {
    font-size: 12px;
  }
`;

const ONE_STEP = 0.001;

interface FrameViewProps {
  plane: PlaneSection;
  maps: readonly BlurMap[];
  placing: boolean;
  onPlace: (fromLeft: number, fromTop: number) => void;
}

/** The frame as the camera sees it, the photograph under it if there is one, and where the plane cuts. */
export function FrameView({ plane, maps, placing, onPlace }: FrameViewProps) {
  const { shot, plan, way, edit, point: selected, selectPoint } = useBench();
  const theme = useTheme();
  const [box, size] = useSize<HTMLDivElement>();
  const dragging = useRef<{ id: string; left: number; top: number } | null>(null);
  const [missing, setMissing] = useState<string | null>(null);
  const reach = plan?.reach;
  const frame =
    reach && size.width >= 40 && size.height >= 40
      ? fitted(reach.sensor_width_mm, reach.sensor_height_mm, size.width, size.height)
      : null;
  const [width, height] =
    reach && frame ? [reach.sensor_width_mm * frame.scale, reach.sensor_height_mm * frame.scale] : [1, 1];
  const named = planeOf(shot).photograph ?? null;
  const photograph = named === missing ? null : named;
  const picked = plane.points.find((each) => each.id === selected);

  const placeOf = (event: PointerEvent<SVGElement>): [number, number] => {
    const frame = (event.currentTarget.ownerSVGElement ?? event.currentTarget).getBoundingClientRect();
    return [(event.clientX - frame.left) / width, (event.clientY - frame.top) / height];
  };
  const onKeyDown = (point: PointAnswer, event: KeyboardEvent) => {
    const step = ONE_STEP * (event.shiftKey ? 10 : 1);
    const aspect = width / height;
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step * aspect],
      ArrowDown: [0, step * aspect],
    };
    const found = by[event.key];
    if (!found) return;
    event.preventDefault();
    edit((draft) =>
      withPoint(draft, point.id, (each) => ({
        ...each,
        from_left: share(each.from_left + found[0]),
        from_top: share(each.from_top + found[1]),
      })),
    );
  };
  const drag = (point: PointAnswer, event: PointerEvent<SVGGElement>, done: boolean) => {
    const from = dragging.current;
    if (from?.id !== point.id) return;
    const [left, top] = placeOf(event);
    // Moved by as much as the pointer: of a flat part it is the middle that moves, whichever corner is held.
    edit(
      (draft) =>
        withPoint(draft, point.id, (each) => ({
          ...each,
          from_left: share(each.from_left + left - from.left),
          from_top: share(each.from_top + top - from.top),
        })),
      { passing: !done },
    );
    dragging.current = done ? null : { id: point.id, left, top };
  };
  const hands = useHands({
    down: (point, event) => {
      selectPoint(point.id);
      event.currentTarget.setPointerCapture(event.pointerId);
      const [left, top] = placeOf(event);
      dragging.current = { id: point.id, left, top };
    },
    move: (point, event) => drag(point, event, false),
    up: (point, event) => drag(point, event, true),
    cancel: (point) => {
      if (dragging.current?.id !== point.id) return;
      dragging.current = null;
      edit((draft) => withPoint(draft, point.id, (each) => each));
    },
    key: onKeyDown,
    focus: (point) => selectPoint(point.id),
  });
  if (!reach || !frame) return <Box ref={box} />;

  return (
    <Box ref={box}>
      <svg
        style={{ left: frame.left, top: frame.top, cursor: placing ? "crosshair" : "default" }}
        width={width}
        height={height}
        role="group"
        aria-label={`The frame as the camera sees it, ${plane.points.length} points${placing ? "; click to place one" : ""}`}
        onPointerDown={(event) => {
          if (event.target instanceof Element && event.target.closest("[role=button]")) return;
          if (placing) onPlace(...placeOf(event));
        }}
      >
        <rect width={width} height={height} fill={theme.surface} />
        <Photograph
          photograph={photograph}
          missing={named !== null && photograph === null}
          empty={plane.points.length === 0}
          width={width}
          height={height}
          onMissing={setMissing}
        />
        <FlatParts points={plane.points} width={width} height={height} />
        <Contours map={mapOf(maps, way?.id ?? null)} width={width} height={height} />
        <rect x={0.5} y={0.5} width={width - 1} height={height - 1} fill="none" stroke={theme.strong} />
        {plane.points.map((point) => (
          <PointMark
            key={`${point.id}-${point.corner ?? ""}`}
            point={point}
            {...placeOnFrame(shot, point, width, height)}
            width={width}
            allowedUm={atStopOf(way, plane).allowed_blur_um}
            blurUm={blurIn(way, point, plane)}
            selected={point.id === selected}
            label={`${point.name} on the frame; arrows move it`}
            hands={hands}
          />
        ))}
        {photograph && picked && picked.corner === null ? (
          <Magnifier photograph={photograph} point={picked} width={width} height={height} />
        ) : null}
      </svg>
    </Box>
  );
}

/** The outline of each flat part, through its corners. */
const FlatParts = memo(function FlatParts({
  points,
  width,
  height,
}: {
  points: PointAnswer[];
  width: number;
  height: number;
}) {
  const theme = useTheme();
  const corners = points.filter((point) => point.corner !== null);
  return [...new Set(corners.map((point) => point.id))].map((id) => (
    <polygon
      key={id}
      aria-hidden
      points={corners
        .filter((point) => point.id === id)
        .sort((one, other) => (one.corner ?? 0) - (other.corner ?? 0))
        .map((point) => `${point.from_left * width},${point.from_top * height}`)
        .join(" ")}
      fill={theme.raised}
      fillOpacity={0.5}
      stroke={theme.soft}
    />
  ));
});

/**
 * Where a point is drawn: from the draft, so that what is held moves with the hand. A corner of a flat part stands where the
 * plan has it.
 */
function placeOnFrame(shot: Shot, point: PointAnswer, width: number, height: number) {
  const entered = point.corner === null ? shot.plane.points.find((each) => each.id === point.id) : undefined;
  const { from_left, from_top } = entered ?? point;
  return { x: from_left * width, y: from_top * height };
}

interface PhotographProps {
  photograph: string | null;
  /** One is named, but not kept here. */
  missing: boolean;
  /** No point is placed yet. */
  empty: boolean;
  width: number;
  height: number;
  onMissing: (photograph: string) => void;
}

/** The framing photograph, or a word on why there is none. */
const Photograph = memo(function Photograph({
  photograph,
  missing,
  empty,
  width,
  height,
  onMissing,
}: PhotographProps) {
  const theme = useTheme();
  if (photograph) {
    return (
      <image
        href={`/api/photographs/${photograph}`}
        width={width}
        height={height}
        preserveAspectRatio="xMidYMid meet"
        onError={() => onMissing(photograph)}
      />
    );
  }
  return (
    <g textAnchor="middle" fill={theme.soft}>
      {empty ? (
        <text x={width / 2} y={height / 2}>
          Load the framing photograph, and place the points here.
        </text>
      ) : null}
      {missing ? (
        <text x={width / 2} y={24}>
          Its framing photograph is not kept on this machine. Load it again.
        </text>
      ) : null}
    </g>
  );
});

/** Solid where the plane cuts, thin where blur is just what is allowed, dashed brick at three times that. */
const Contours = memo(function Contours({
  map,
  width,
  height,
}: {
  map: BlurMap | undefined;
  width: number;
  height: number;
}) {
  const theme = useTheme();
  if (!map) return null;
  const path = (level: number) => pathOf(contours(map.percent, map.columns, map.rows, level), width, height);
  return (
    <g fill="none" aria-hidden>
      <path d={path(0.5)} stroke={theme.surface} strokeWidth={5} strokeOpacity={0.7} />
      <path d={path(0.5)} stroke={theme.sharp} strokeWidth={2.6} />
      <path d={path(100) + path(-100)} stroke={theme.surface} strokeWidth={3.5} strokeOpacity={0.6} />
      <path d={path(100) + path(-100)} stroke={theme.sharpEdge} strokeWidth={1.4} />
      <path d={path(300) + path(-300)} stroke={theme.trouble} strokeWidth={1.2} strokeDasharray="5 4" />
    </g>
  );
});
