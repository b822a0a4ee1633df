import type { KeyboardEvent, PointerEvent } from "react";
import { useRef } from "react";
import styled, { useTheme } from "styled-components";
import type { PlaneSection, PointAnswer, WayAnswer } from "../../api/types";
import { usePreferences } from "../../app/preferences";
import { useSize } from "../../drawing/useSize";
import { niceStep } from "../../drawing/viewport";
import { length } from "../../units/format";
import { useBench } from "../bench/ShotContext";
import { elevationOf, hingePlace, lineEnds, wedge, type Elevation } from "./elevation";
import { deeper, planeOf, share, withPoint } from "./moves";
import { PointMark } from "./PointMark";

const Box = styled.div`
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  border: 1px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.surface};
  svg {
    position: absolute;
    inset: 0;
    touch-action: none;
  }
  text {
    font-size: 12px;
  }
`;

/** The side elevation at the plane: points, plane, wedge and hinge, to one scale both ways. */
export function ElevationView({ plane, depth }: { plane: PlaneSection; depth: number }) {
  const { shot, plan, way, edit, point: selected, selectPoint } = useBench();
  const reach = plan?.reach;
  const { units } = usePreferences();
  const [box, size] = useSize<HTMLDivElement>();
  const drag = useRef<{ id: string; x: number; y: number; view: Elevation } | null>(null);
  const view =
    size.width > 60 && size.height > 60 ? elevationOf(plane, depth, size.width, size.height) : null;
  const railCounts = planeOf(shot).rail_counts ?? "toward";

  const move = (point: PointAnswer, deep: number, across: number, passing: boolean) => {
    const turn = (plane.azimuth_deg * Math.PI) / 180;
    const perMm = point.frame_width_mm ? 1 / point.frame_width_mm : 0;
    const aspect = reach ? reach.sensor_width_mm / reach.sensor_height_mm : 1.5;
    edit(
      (draft) =>
        withPoint(draft, point.id, (each) => ({
          ...deeper(each, deep, railCounts),
          from_left: share(each.from_left + across * Math.cos(turn) * perMm),
          from_top: share(each.from_top - across * Math.sin(turn) * perMm * aspect),
        })),
      { passing },
    );
  };
  const onPointerDown = (point: PointAnswer) => (event: PointerEvent<SVGGElement>) => {
    if (!view) return;
    selectPoint(point.id);
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { id: point.id, x: event.clientX, y: event.clientY, view };
  };
  const onPointerMove = (point: PointAnswer, done: boolean) => (event: PointerEvent) => {
    const from = drag.current;
    if (from?.id !== point.id) return;
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    if (dx || dy || done) move(point, from.view.mm(dx), -from.view.mm(dy), !done);
    drag.current = done ? null : { ...from, x: event.clientX, y: event.clientY };
  };
  const onKeyDown = (point: PointAnswer) => (event: KeyboardEvent) => {
    if (!view) return;
    const step = niceStep(1 / view.pxPerMm) * (event.shiftKey ? 10 : 1);
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    const found = by[event.key];
    if (!found) return;
    event.preventDefault();
    move(point, ...found, false);
  };

  return (
    <Box ref={box}>
      {view ? (
        <svg width={view.width} height={view.height} role="group" aria-label={summary(plane, units)}>
          <Ground view={view} plane={plane} way={way} depth={depth} />
          {plane.points.map((point) =>
            point.behind_nearest_mm === null || point.behind_nearest_mm === undefined ? null : (
              <PointMark
                key={`${point.id}-${point.corner ?? ""}`}
                point={point}
                x={view.x(point.behind_nearest_mm)}
                y={view.y(point.across_mm ?? 0)}
                allowedUm={plane.allowed_blur_um}
                blurUm={blurIn(way, point, plane)}
                selected={point.id === selected}
                label={`${point.name}, ${length(point.behind_nearest_mm, units)} behind the nearest; arrows move it`}
                onPointerDown={onPointerDown(point)}
                onPointerMove={onPointerMove(point, false)}
                onPointerUp={onPointerMove(point, true)}
                onKeyDown={onKeyDown(point)}
                onFocus={() => selectPoint(point.id)}
              />
            ),
          )}
        </svg>
      ) : null}
    </Box>
  );
}

/** The blur of a point is known with the setting; without tilt the contours on the frame show it. */
export function blurIn(way: WayAnswer | null, point: PointAnswer, plane: PlaneSection): number | null {
  if (!plane.setting || !isTilted(way)) return null;
  return point.blur_um ?? null;
}

export function isTilted(way: WayAnswer | null): boolean {
  return way === null || way.id.startsWith("tilt");
}

function summary(plane: PlaneSection, units: "mm" | "in"): string {
  const known = plane.points.filter((point) => point.behind_nearest_mm !== null).length;
  const angle =
    plane.angle_deg === null || plane.angle_deg === undefined
      ? ""
      : `, plane ${plane.angle_deg.toFixed(0)}° from square`;
  const off = plane.largest_deviation_mm
    ? `, worst point ${length(plane.largest_deviation_mm, units)} off it`
    : "";
  return `Side view to scale: ${known} points${angle}${off}`;
}

interface GroundProps {
  view: Elevation;
  plane: PlaneSection;
  way: WayAnswer | null;
  depth: number;
}

/** Axis, field, and what is sharp: the wedge of the setting, or the upright bands of a way without tilt. */
function Ground({ view, plane, way, depth }: GroundProps) {
  const theme = useTheme();
  const { units } = usePreferences();
  const half = plane.half_field_mm;
  const strip = way?.id === "strip" ? plane.strip : null;
  const line = strip ? strip.line : isTilted(way) ? plane.laid : null;
  const tilted = isTilted(way) && plane.near_face;
  const ends = line ? lineEnds(view, line) : null;
  const wanted = plane.wanted ? lineEnds(view, plane.wanted) : null;
  return (
    <>
      <line
        x1={0}
        x2={view.width}
        y1={view.y(0)}
        y2={view.y(0)}
        stroke={theme.soft}
        strokeDasharray="14 4 2 4"
      />
      {[half, -half].map((edge) => (
        <line key={edge} x1={0} x2={view.width} y1={view.y(edge)} y2={view.y(edge)} stroke={theme.line} />
      ))}
      {tilted && plane.near_face ? (
        <polygon
          points={wedge(view, plane.near_face, plane.far_face)}
          fill={theme.sharp}
          fillOpacity={0.4}
          stroke={theme.sharpEdge}
        />
      ) : null}
      {!isTilted(way) && !strip && way ? <Upright view={view} way={way} half={half} /> : null}
      {wanted && plane.limited ? (
        <path
          d={`M${wanted[0]} ${wanted[1]}L${wanted[2]} ${wanted[3]}`}
          stroke={theme.trouble}
          strokeDasharray="6 4"
          strokeWidth={1.5}
        />
      ) : null}
      {wanted && !plane.limited && !tilted ? (
        <path
          d={`M${wanted[0]} ${wanted[1]}L${wanted[2]} ${wanted[3]}`}
          stroke={theme.subject}
          strokeDasharray="2 4"
        />
      ) : null}
      {ends ? (
        <path d={`M${ends[0]} ${ends[1]}L${ends[2]} ${ends[3]}`} stroke={theme.sharpEdge} strokeWidth={2} />
      ) : null}
      <Axis view={view} depth={depth} text={length(depth, units)} />
      {plane.setting && tilted && plane.setting.tilt_deg > 0.01 ? <Hinge view={view} plane={plane} /> : null}
      <text x={8} y={view.height - 8} fill={theme.soft}>
        camera this way
      </text>
      <path d={`M8 ${view.height - 26}h26m-26 0l6-4m-6 4l6 4`} stroke={theme.soft} fill="none" />
    </>
  );
}

function Upright({ view, way, half }: { view: Elevation; way: WayAnswer; half: number }) {
  const theme = useTheme();
  const [first, last] = [way.bands_mm[0], way.bands_mm.at(-1)];
  if (!first || !last || (last[1] as number) <= (first[0] as number)) return null;
  const clip = (place: number) => Math.min(Math.max(view.x(place), -5), view.width + 5);
  const [from, to] = [clip(first[0] as number), clip(last[1] as number)];
  const apart =
    way.focuses_mm.length > 1 ? Math.abs((way.focuses_mm[1] as number) - (way.focuses_mm[0] as number)) : 0;
  const lines = way.frames === 1 || apart * view.pxPerMm >= 3 ? way.focuses_mm : [];
  return (
    <>
      <rect
        x={from}
        y={view.y(half)}
        width={Math.max(to - from, 1)}
        height={view.y(-half) - view.y(half)}
        fill={theme.sharp}
        fillOpacity={0.4}
        stroke={theme.sharpEdge}
      />
      <path
        d={lines.map((place) => `M${view.x(place).toFixed(1)} ${view.y(half)}V${view.y(-half)}`).join("")}
        stroke={theme.sharpEdge}
      />
    </>
  );
}

function Axis({ view, depth, text }: { view: Elevation; depth: number; text: string }) {
  const theme = useTheme();
  const [from, to] = [view.x(0), view.x(depth)];
  return (
    <g>
      <path d={`M${from} 22V30M${from} 26H${to}M${to} 22V30`} stroke={theme.subject} fill="none" />
      <text x={(from + to) / 2} y={16} textAnchor="middle" fill={theme.ink} fontWeight={650}>
        {text} deep
      </text>
    </g>
  );
}

function Hinge({ view, plane }: { view: Elevation; plane: PlaneSection }) {
  const theme = useTheme();
  const { units } = usePreferences();
  const setting = plane.setting;
  if (!setting) return null;
  const place = hingePlace(view, setting.hinge_behind_nearest_mm, setting.hinge_across_mm);
  const words = `hinge, ${length(setting.hinge_mm, units)} from the lens`;
  return (
    <g transform={`translate(${place.x} ${place.y})`}>
      {place.inside ? (
        <circle r={6} fill={theme.surface} stroke={theme.strong} strokeWidth={2} />
      ) : (
        <path
          d="M-12 0H8M2 -5L8 0L2 5"
          fill="none"
          stroke={theme.strong}
          strokeWidth={1.8}
          transform={`rotate(${place.angle})`}
        />
      )}
      <text
        x={place.x > view.width / 2 ? -14 : 14}
        y={place.y > view.height / 2 ? -10 : 18}
        textAnchor={place.x > view.width / 2 ? "end" : "start"}
        fill={theme.soft}
        stroke={theme.surface}
        strokeWidth={4}
        paintOrder="stroke"
      >
        {words}
      </text>
    </g>
  );
}
