import { useTheme } from "styled-components";
import type { PlaneLine, PlaneSection, WayAnswer } from "../api/types";
import { joined } from "../drawing/joined";
import type { Viewport } from "../drawing/viewport";
import { atStopOf } from "./tilted";

/** The field between two places along the axis, as the points of a polygon. */
export function trapezoid(view: Scale, from: number, to: number, halfAt: (place: number) => number): string {
  const wide = Math.max(view.x(to), view.x(from) + 1.5);
  return [
    [view.x(from), view.y(halfAt(from))],
    [wide, view.y(halfAt(to))],
    [wide, view.y(-halfAt(to))],
    [view.x(from), view.y(-halfAt(from))],
  ]
    .map(([x, y]) => `${(x as number).toFixed(2)},${(y as number).toFixed(2)}`)
    .join(" ");
}

const CLOSE_PX = 3;

/** As much of a drawing's scale as the bands need. */
interface Scale {
  x: (place: number) => number;
  y: (above: number) => number;
  from: number;
  to: number;
  pxPerMm: number;
}

/** What the way holds sharp: solid saffron, a line at each frame's focus. */
export function Bands(props: {
  view: Scale;
  way: WayAnswer;
  shift: number;
  halfAt: (place: number) => number;
}) {
  const { view, way, shift, halfAt } = props;
  const theme = useTheme();
  const clip = (place: number) => Math.min(Math.max(place + shift, view.from), view.to);
  const pieces = joined(way.bands_mm);
  if (!pieces.length) return null;
  const spacing =
    way.focuses_mm.length > 1
      ? Math.abs((way.focuses_mm[1] as number) - (way.focuses_mm[0] as number)) * view.pxPerMm
      : Infinity;
  const lines = spacing >= CLOSE_PX ? way.focuses_mm : [];
  return (
    <g>
      {pieces.map(([from, to]) => (
        <polygon
          key={from}
          points={trapezoid(view, clip(from), clip(to), halfAt)}
          fill={theme.sharp}
          fillOpacity={0.42}
          stroke={theme.sharpEdge}
          strokeWidth={1.2}
        />
      ))}
      <path
        d={lines
          .filter((place) => place + shift >= view.from && place + shift <= view.to)
          .map((place) => upright(view, place + shift, halfAt(place + shift)))
          .join("")}
        stroke={theme.sharpEdge}
        strokeWidth={way.frames === 1 ? 2 : 1}
      />
    </g>
  );
}

interface SlantedProps {
  view: Viewport;
  plane: PlaneSection;
  way: WayAnswer;
  half: number;
  shift: number;
}

/** What a tilted lens holds sharp, cut upright through the axis: the wedge, or the plane of a strip. */
export function Slanted({ view, plane, way, half, shift }: SlantedProps) {
  const theme = useTheme();
  const strip = way.id === "strip";
  const upright = Math.sin((plane.azimuth_deg * Math.PI) / 180);
  const clip = (place: number) => Math.min(Math.max(view.x(place), -2000), view.width + 2000);
  const at = (line: PlaneLine, above: number): string =>
    `${clip(line.at_axis_mm + line.slope * upright * above + shift).toFixed(1)},${view.y(above).toFixed(1)}`;
  const line = strip ? plane.strip?.line : plane.laid;
  const { near_face: near, far_face: far } = atStopOf(way, plane);
  const edge = `${view.width + 10},`;
  return (
    <g>
      {!strip && near ? (
        <polygon
          points={[
            at(near, half),
            far ? at(far, half) : edge + view.y(half).toFixed(1),
            far ? at(far, -half) : edge + view.y(-half).toFixed(1),
            at(near, -half),
          ].join(" ")}
          fill={theme.sharp}
          fillOpacity={0.42}
          stroke={theme.sharpEdge}
          strokeWidth={1.2}
        />
      ) : null}
      {line ? (
        <polyline points={`${at(line, half)} ${at(line, -half)}`} stroke={theme.sharpEdge} strokeWidth={2} />
      ) : null}
    </g>
  );
}

function upright(view: Scale, place: number, half: number): string {
  return `M${view.x(place).toFixed(1)} ${view.y(half).toFixed(1)}V${view.y(-half).toFixed(1)}`;
}
