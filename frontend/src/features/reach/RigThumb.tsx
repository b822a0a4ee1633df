import { memo } from "react";
import { useTheme } from "styled-components";
import type { FoundRig } from "../../api/types";
import { PieceMarks } from "./PieceMarks";
import { BEHIND_MM, HEIGHT } from "./thumbScale";

/** A rig from the side, to the one scale of the list. */
export const RigThumb = memo(function RigThumb({
  found,
  pxPerMm,
  width,
}: {
  found: FoundRig;
  pxPerMm: number;
  width: number;
}) {
  const theme = useTheme();
  const x = (place: number) => (place + BEHIND_MM) * pxPerMm;
  const axis = HEIGHT / 2;
  const front = found.subject_to_sensor_mm - found.working_distance_mm;
  const end = x(found.subject_to_sensor_mm);
  const cut = end > width - 4;
  const subject = cut ? width - 5 : end;
  return (
    <svg width={width} height={HEIGHT} aria-hidden>
      <PieceMarks pieces={found.outline} x={x} axis={axis} pxPerMm={pxPerMm} />
      <line x1={x(front)} x2={subject} y1={axis} y2={axis} stroke={theme.subject} />
      {cut ? (
        <path d={`M${subject - 16} ${axis - 7}l4 7-4 7m5-14l4 7-4 7`} fill="none" stroke={theme.strong} />
      ) : null}
      <rect
        x={subject - 1.5}
        y={axis - Math.min((found.frame_height_mm / 2) * pxPerMm, HEIGHT / 2 - 1)}
        width={3}
        height={Math.min(found.frame_height_mm * pxPerMm, HEIGHT - 2)}
        fill={theme.sharp}
        stroke={theme.sharpEdge}
        strokeWidth={0.8}
      />
    </svg>
  );
});
