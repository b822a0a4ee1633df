import { useId, useMemo } from "react";
import { useTheme } from "styled-components";
import type { MarksReport } from "../../api/types";
import { Hatch } from "../../drawing/Hatch";
import { contours, levels, pathOf } from "../../drawing/contours";
import { fonts } from "../../look/theme";
import { figures } from "../../units/format";
import { cellsOver } from "./cells";

const LINES = 9;
/** Share of a cell in fog, and levels of 255, from which it is marked. */
const FOGGED = 0.3;
export const DIFFERS = 6;

interface Props {
  marks: MarksReport;
  place: { scale: number; left: number; top: number; width: number; height: number };
  size: { width: number; height: number };
  depth: boolean;
  brush: boolean;
  /** By cell, of the two pictures that are shown; null: nothing is marked. */
  differences: readonly number[] | null;
}

/** What is drawn over a proof: depth in contour lines, what needs the brush hatched, what differs dotted. */
export function Marks({ marks, place, size, depth, brush, differences }: Props) {
  const theme = useTheme();
  const id = useId();
  const wide = size.width * place.scale;
  const high = size.height * place.scale;
  return (
    <svg
      width={place.width}
      height={place.height}
      style={{ position: "absolute", inset: 0, pointerEvents: "none" }}
      aria-hidden
    >
      <Hatch id={`${id}brush`} />
      <pattern id={`${id}differs`} width={7} height={7} patternUnits="userSpaceOnUse">
        <circle cx={2} cy={2} r={1.7} fill={theme.surface} />
        <circle cx={2} cy={2} r={1.1} fill={theme.ink} />
      </pattern>
      <g transform={`translate(${place.left} ${place.top})`}>
        {brush ? (
          <Cells
            marks={marks}
            values={marks.brush}
            from={FOGGED}
            wide={wide}
            high={high}
            fill={`url(#${id}brush)`}
          />
        ) : null}
        {differences ? (
          <Cells
            marks={marks}
            values={differences}
            from={DIFFERS}
            wide={wide}
            high={high}
            fill={`url(#${id}differs)`}
          />
        ) : null}
        {depth ? <Depth marks={marks} wide={wide} high={high} /> : null}
      </g>
    </svg>
  );
}

function Cells({
  marks,
  values,
  from,
  wide,
  high,
  fill,
}: {
  marks: MarksReport;
  values: readonly number[];
  from: number;
  wide: number;
  high: number;
  fill: string;
}) {
  const bars = useMemo(() => cellsOver(values, marks.across, from), [values, marks.across, from]);
  return bars.map(({ column, row, cells }) => (
    <rect
      key={`${column} ${row}`}
      x={(column / marks.across) * wide}
      y={(row / marks.down) * high}
      width={(cells / marks.across) * wide}
      height={high / marks.down}
      fill={fill}
    />
  ));
}

function Depth({ marks, wide, high }: { marks: MarksReport; wide: number; high: number }) {
  const theme = useTheme();
  const lines = useMemo(() => {
    const values = marks.depth.map((value) => value ?? Number.NaN);
    const known = values.filter(Number.isFinite);
    const [low, most] = known.reduce(
      ([a, b], value) => [Math.min(a, value), Math.max(b, value)],
      [Infinity, -Infinity],
    );
    return levels(low, most, LINES).map((level) => ({
      level,
      segments: contours(values, marks.across, marks.down, level),
    }));
  }, [marks]);
  return lines.map(({ level, segments }) => {
    const label = segments[Math.floor(segments.length / 2)];
    const path = pathOf(segments, wide, high);
    return (
      <g key={level} fill="none">
        <path d={path} stroke={theme.surface} strokeWidth={3} />
        <path d={path} stroke={theme.ink} strokeWidth={1.2} />
        {label ? (
          <text
            x={label[0] * wide}
            y={label[1] * high}
            fill={theme.ink}
            stroke={theme.surface}
            strokeWidth={4}
            paintOrder="stroke"
            fontSize={12}
            fontFamily={fonts.figures}
            textAnchor="middle"
            dominantBaseline="central"
          >
            {figures(level)} {marks.unit}
          </text>
        ) : null}
      </g>
    );
  });
}
