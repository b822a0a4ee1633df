import { memo } from "react";
import { useTheme } from "styled-components";
import type { PointAnswer } from "../../api/types";
import type { Hands } from "./hands";
import { labelPlace } from "./labelPlace";

/** Radius in px at which a blur that is just allowed is drawn; every disc is to that scale. */
export const ALLOWED_PX = 9;
const LARGEST_PX = 60;

interface PointMarkProps {
  point: PointAnswer;
  x: number;
  y: number;
  /** Of the drawing, px: a name beside its edge is written inward. */
  width: number;
  allowedUm: number;
  /** Null: not known for the way looked at; only the place is drawn. */
  blurUm: number | null;
  selected: boolean;
  label: string;
  hands: Hands;
}

/** A point: a cross in petrol, a ring as large as what may blur, and its own blur as a disc to the same scale. */
export const PointMark = memo(function PointMark(props: PointMarkProps) {
  const { point, x, y, width, allowedUm, blurUm, selected, label, hands } = props;
  const theme = useTheme();
  const radius =
    blurUm === null || allowedUm <= 0 ? 0 : Math.min((blurUm / allowedUm) * ALLOWED_PX, LARGEST_PX);
  const sharp = radius <= ALLOWED_PX;
  const troubled = point.fine === false && blurUm !== null;
  const name = point.corner === null || point.corner === 1 ? point.name : "";
  const named = labelPlace(name, x, y, width);
  return (
    <g
      transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}
      tabIndex={0}
      role="button"
      aria-label={label}
      aria-pressed={selected}
      onPointerDown={(event) => hands.down(point, event)}
      onPointerMove={(event) => hands.move(point, event)}
      onPointerUp={(event) => hands.up(point, event)}
      onPointerCancel={() => hands.cancel(point)}
      onKeyDown={(event) => hands.key(point, event)}
      onFocus={() => hands.focus(point)}
      style={{ cursor: "move", touchAction: "none" }}
    >
      <circle r={20} fill="transparent" />
      {radius > 0 ? (
        <circle
          r={Math.max(radius, 1)}
          fill={sharp ? theme.sharp : troubled ? theme.trouble : theme.soft}
          fillOpacity={sharp ? 0.85 : 0.16}
          stroke={sharp ? theme.sharpEdge : troubled ? theme.trouble : theme.soft}
          strokeDasharray={sharp ? undefined : "4 3"}
        />
      ) : null}
      {blurUm === null ? null : <circle r={ALLOWED_PX} fill="none" stroke={theme.subject} strokeWidth={1} />}
      <path
        d={point.wanted === "soft" ? "M-6 0h4M2 0h4M0 -6v4M0 2v4" : "M-7 0H7M0 -7V7"}
        stroke={theme.surface}
        strokeWidth={4.5}
      />
      <path
        d={point.wanted === "soft" ? "M-6 0h4M2 0h4M0 -6v4M0 2v4" : "M-7 0H7M0 -7V7"}
        stroke={theme.subject}
        strokeWidth={2}
      />
      {selected ? (
        <rect x={-15} y={-15} width={30} height={30} fill="none" stroke={theme.strong} strokeWidth={2} />
      ) : null}
      {selected && name ? (
        <text
          x={named.x}
          y={named.y}
          textAnchor="middle"
          fill={theme.ink}
          stroke={theme.surface}
          strokeWidth={4}
          paintOrder="stroke"
          fontWeight={650}
          fontSize={12}
        >
          {named.text}
        </text>
      ) : null}
    </g>
  );
});
