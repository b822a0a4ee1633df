import { memo } from "react";
import { useTheme } from "styled-components";
import type { WayAnswer } from "../../api/types";
import { joined } from "../../drawing/joined";
import { uprights } from "../../drawing/uprights";
import type { Viewport } from "../../drawing/viewport";

const LANE = 11;

/**
 * The band of a way: solid where sharp; dashed brick where nothing of it is sharp. A tilted stack, whose planes lie
 * aslant, is its frames alone. The row that it lies in says where.
 */
export const LaneOf = memo(function LaneOf({
  way,
  view,
  shift,
}: {
  way: WayAnswer;
  view: Viewport;
  shift: number;
}) {
  const theme = useTheme();
  const first = way.bands_mm[0];
  const xOf = (place: number) => Math.min(Math.max(view.x(place + shift), -4), view.width + 4);
  if (!first) return null;
  const pieces = joined(way.bands_mm);
  const spacing =
    way.focuses_mm.length > 1
      ? ((way.focuses_mm[1] as number) - (way.focuses_mm[0] as number)) * view.pxPerMm
      : 0;
  return (
    <svg data-lane="" width={view.width} height={LANE} aria-hidden>
      {pieces.length === 0 && way.cover > 0 ? null : pieces.length === 0 ? (
        <rect
          x={xOf(first[0] as number) - 6}
          y={1}
          width={12}
          height={LANE - 2}
          fill="none"
          stroke={theme.trouble}
          strokeDasharray="3 2"
        />
      ) : (
        pieces.map(([from, to]) => (
          <rect
            key={from}
            x={xOf(from)}
            y={0.5}
            width={Math.max(xOf(to) - xOf(from), 2)}
            height={LANE - 1}
            fill={theme.sharp}
            stroke={theme.sharpEdge}
          />
        ))
      )}
      {spacing >= 3 ? (
        <path
          d={uprights(way.focuses_mm, view, shift, 1, LANE - 1)}
          stroke={theme.sharpEdge}
          strokeWidth={1}
        />
      ) : null}
    </svg>
  );
});
