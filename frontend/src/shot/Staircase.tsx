import { useId } from "react";
import styled, { useTheme } from "styled-components";
import { Rule } from "../drawing/Rule";
import { Hatch } from "../drawing/Hatch";
import { useSize } from "../drawing/useSize";
import { makeViewport, type Viewport } from "../drawing/viewport";
import { usePreferences } from "../look/preferences";
import { fonts } from "../look/theme";

export interface Tread {
  frame: number;
  /** Filled: it is there and counts. Broken: it is there and does not. Outline: still to come. */
  look: "filled" | "broken" | "to come";
  /** Near and far end of what it holds, mm behind the nearest point. */
  found: [number, number];
  planned: [number, number] | null;
}

export interface Stairs {
  rows: Tread[];
  from: number;
  to: number;
  near: number;
  far: number;
}

const Box = styled.div`
  p {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
    margin-bottom: 2px;
  }
`;

/** Height that the rows share, px: past sixty frames they become hairlines. */
const ROOM = 152;
/** Height of a row's number, px. */
const FIGURE = 9;

interface Props {
  stairs: Stairs;
  words: string;
  gaps?: readonly (readonly [number, number])[];
  /** Where the camera stands, mm behind the nearest point. */
  here?: number | null;
}

/** Under the rule a row a frame, from the nearest to the farthest depth that it holds sharp. */
export function Staircase({ stairs, words, gaps = [], here = null }: Props) {
  const { units } = usePreferences();
  const [box, size] = useSize<HTMLDivElement>();
  const { rows, from, to, near, far } = stairs;
  const width = Math.max(size.width, 1);
  const view = makeViewport(width, 100, (from + to) / 2, (width - 76) / Math.max(to - from, 1e-9));
  const tall = Math.min(Math.max(Math.floor(ROOM / rows.length), 2), 10);
  return (
    <Box ref={box}>
      <p>
        {units} behind the nearest point that must be sharp · {words}
      </p>
      {size.width > 80 ? (
        <>
          <Rule view={view} units={units} from={near} to={far} />
          <Rows rows={rows} view={view} tall={tall} gaps={gaps} here={here} />
        </>
      ) : null}
    </Box>
  );
}

interface RowsProps {
  rows: Tread[];
  view: Viewport;
  tall: number;
  gaps: readonly (readonly [number, number])[];
  here: number | null;
}

function Rows({ rows, view, tall, gaps, here }: RowsProps) {
  const theme = useTheme();
  const pattern = useId();
  // The number of the first row stands as high as any other.
  const above = Math.max(FIGURE - tall, 0);
  const height = above + rows.length * tall + 8;
  const every = Math.max(Math.ceil(14 / tall), 1);
  return (
    <svg
      width={view.width}
      height={height}
      role="img"
      aria-label="Which depth each frame holds"
      style={{ display: "block" }}
    >
      <Hatch id={pattern} />
      {gaps.map(([from, to]) => (
        <rect
          key={from}
          x={view.x(from)}
          y={0}
          width={Math.max(view.x(to) - view.x(from), 2)}
          height={height}
          fill={`url(#${pattern})`}
        />
      ))}
      {here === null ? null : (
        <line
          x1={view.x(here)}
          x2={view.x(here)}
          y1={0}
          y2={height}
          stroke={theme.strong}
          strokeDasharray="2 4"
          strokeWidth={1.5}
        />
      )}
      {rows.map((row, index) => (
        <Row
          key={row.frame}
          row={row}
          view={view}
          y={above + index * tall}
          tall={tall}
          numbered={index % every === 0}
        />
      ))}
    </svg>
  );
}

interface RowProps {
  row: Tread;
  view: Viewport;
  y: number;
  tall: number;
  numbered: boolean;
}

function Row({ row, view, y, tall, numbered }: RowProps) {
  const theme = useTheme();
  const broken = row.look === "broken";
  const edge = { filled: theme.sharpEdge, broken: theme.trouble, "to come": theme.line }[row.look];
  return (
    <g>
      {row.planned ? (
        <Bar span={row.planned} view={view} y={y} tall={tall} fill="none" edge={theme.line} />
      ) : null}
      <Bar
        span={row.found}
        view={view}
        y={y}
        tall={tall}
        fill={row.look === "filled" ? theme.sharp : "none"}
        edge={edge}
        dashes={broken ? "3 2" : undefined}
      />
      {numbered || broken ? (
        <text
          x={view.x(row.found[1]) + 5}
          y={y + tall}
          fontSize={10}
          fontFamily={fonts.figures}
          fill={broken ? theme.trouble : theme.soft}
        >
          {row.frame + 1}
        </text>
      ) : null}
    </g>
  );
}

interface BarProps {
  span: [number, number];
  view: Viewport;
  y: number;
  tall: number;
  fill: string;
  edge: string;
  dashes?: string | undefined;
}

function Bar({ span, view, y, tall, fill, edge, dashes }: BarProps) {
  return (
    <rect
      x={view.x(span[0])}
      y={y + 2}
      width={Math.max(view.x(span[1]) - view.x(span[0]), 1)}
      height={Math.max(tall - 2, 1)}
      fill={fill}
      stroke={edge}
      strokeDasharray={dashes}
    />
  );
}
