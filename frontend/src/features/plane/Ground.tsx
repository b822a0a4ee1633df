import { memo } from "react";
import { useTheme } from "styled-components";
import type { PlaneSection, WayAnswer } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { length } from "../../units/format";
import { Bands } from "../../shot/SharpMarks";
import { hingePlace, lineEnds, wedge, type Elevation } from "./elevation";
import { atStopOf, isTilted } from "../../shot/tilted";

interface GroundProps {
  view: Elevation;
  plane: PlaneSection;
  way: WayAnswer | null;
  depth: number;
}

/** Axis, field, and what is sharp: the wedge of the setting, or the upright bands of a way without tilt. */
export const Ground = memo(function Ground({ view, plane, way, depth }: GroundProps) {
  const theme = useTheme();
  const { units } = usePreferences();
  const half = plane.half_field_mm;
  const strip = way?.id === "strip" ? plane.strip : null;
  const line = strip ? strip.line : isTilted(way) ? plane.laid : null;
  const { near_face: near, far_face: far } = atStopOf(way, plane);
  const tilted = isTilted(way) && near;
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
      {tilted ? (
        <polygon
          points={wedge(view, near, far)}
          fill={theme.sharp}
          fillOpacity={0.4}
          stroke={theme.sharpEdge}
        />
      ) : null}
      {!isTilted(way) && !strip && way ? <Bands view={view} way={way} shift={0} halfAt={() => half} /> : null}
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
});

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
