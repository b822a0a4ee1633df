import styled, { useTheme } from "styled-components";
import type { CheckReport, FrameReport } from "../../api/types";
import { useSize } from "../../drawing/useSize";
import { columns } from "./grid";

const HEIGHT = 24;

const Box = styled.div`
  display: grid;
  gap: 2px;
  p {
    display: flex;
    justify-content: space-between;
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

const KINDS: readonly {
  words: string;
  unit: string;
  least: number;
  of: (frame: FrameReport) => number | null;
}[] = [
  { words: "light against the reference", unit: "stops", least: 0.1, of: (frame) => frame.ev },
  { words: "view moved, beyond the usual", unit: "px", least: 1, of: (frame) => frame.moved_px },
  { words: "detail against the frames beside", unit: "", least: 0.3, of: (frame) => frame.loss },
];

/** Light, movement and detail, a mark a frame; what lies past the strip is cut and says so by its shape. */
export function Strips({ report }: { report: CheckReport }) {
  const [box, size] = useSize<HTMLDivElement>();
  return (
    <Box ref={box}>
      {KINDS.map((kind) => (
        <Strip key={kind.words} kind={kind} frames={report.frames} width={Math.max(size.width, 1)} />
      ))}
    </Box>
  );
}

function Strip({
  kind,
  frames,
  width,
}: {
  kind: (typeof KINDS)[number];
  frames: FrameReport[];
  width: number;
}) {
  const theme = useTheme();
  const values = frames.map(kind.of);
  const known = values.flatMap((value) => (value === null ? [] : [Math.abs(value)])).sort((a, b) => a - b);
  // As high as nine in ten frames ask for: one that stands out is cut, so that the others can be told apart.
  const most = Math.max(known[Math.floor(known.length * 0.9)] ?? 0, kind.least);
  const { x, each } = columns(frames.length, width);
  return (
    <div>
      <p>
        <span>{kind.words}</span>
        <span>{`±${most < 1 ? most.toFixed(2) : most.toFixed(1)} ${kind.unit}`}</span>
      </p>
      <svg width={width} height={HEIGHT} role="img" aria-label={kind.words} style={{ display: "block" }}>
        <line x1={0} x2={width} y1={HEIGHT / 2} y2={HEIGHT / 2} stroke={theme.line} />
        {values.map((value, index) => {
          if (value === null) return null;
          const share = Math.max(Math.min(value / most, 1), -1);
          const cut = Math.abs(value) > most * 1.001;
          const tall = Math.max(Math.abs(share) * (HEIGHT / 2 - 2), 1);
          return (
            <rect
              key={index}
              x={x(index) - Math.min(each * 0.3, 4)}
              y={share >= 0 ? HEIGHT / 2 - tall : HEIGHT / 2}
              width={Math.min(each * 0.6, 8)}
              height={tall}
              fill={cut ? "none" : theme.subject}
              stroke={cut ? theme.trouble : "none"}
              strokeDasharray={cut ? "3 2" : undefined}
              strokeWidth={1.5}
            />
          );
        })}
      </svg>
    </div>
  );
}
