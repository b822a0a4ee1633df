import { useId } from "react";
import styled, { useTheme } from "styled-components";
import type { CheckReport } from "../../api/types";
import { fitted } from "../../drawing/picture";
import { Hatch } from "../../drawing/Hatch";
import { useSize } from "../../drawing/useSize";
import { gridOf } from "./grid";

export interface Place {
  x: number;
  y: number;
}

const Figure = styled.figure`
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 4px;
  margin: 0;
  min-width: 0;
  min-height: 0;
  figcaption {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

const Box = styled.div`
  position: relative;
  min-height: 0;
  svg {
    position: absolute;
    inset: 0;
    cursor: crosshair;
  }
`;

const STEP = 1;

interface Props {
  report: CheckReport;
  jobId: string;
  place: Place | null;
  onPlace: (place: Place) => void;
}

/** The reference frame with what is sharp in no frame; a press on it asks about that place. */
export function CoveredPicture({ report, jobId, place, onPlace }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const theme = useTheme();
  const pattern = useId();
  const { scale, left, top } = fitted(report.width_px, report.height_px, size.width || 1, size.height || 1);
  const grid = gridOf(report.coverage);
  const at = (event: React.MouseEvent<SVGSVGElement>) => {
    const frame = event.currentTarget.getBoundingClientRect();
    onPlace({ x: (event.clientX - frame.left - left) / scale, y: (event.clientY - frame.top - top) / scale });
  };
  const move = (event: React.KeyboardEvent<SVGSVGElement>) => {
    const arrows: Record<string, [number, number]> = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, -STEP],
      ArrowDown: [0, STEP],
    };
    const arrow = arrows[event.key];
    if (!arrow) return;
    event.preventDefault();
    const from = place ?? { x: report.width_px / 2, y: report.height_px / 2 };
    onPlace({
      x: Math.min(Math.max(from.x + arrow[0] * grid.width, 0), report.width_px - 1),
      y: Math.min(Math.max(from.y + arrow[1] * grid.height, 0), report.height_px - 1),
    });
  };
  const uncovered = report.coverage.filter((one) => one.covered === false);
  return (
    <Figure>
      <Box ref={box}>
        <svg
          width={size.width}
          height={size.height}
          role="application"
          tabIndex={0}
          aria-label="The picture; arrow keys move the place that is asked about"
          onClick={at}
          onKeyDown={move}
        >
          <Hatch id={pattern} veiled />
          {report.reference_frame !== null && size.width ? (
            <image
              href={`/api/jobs/${jobId}/frames/${report.reference_frame}?width=1400`}
              x={left}
              y={top}
              width={report.width_px * scale}
              height={report.height_px * scale}
            />
          ) : null}
          {uncovered.map((one) => (
            <rect
              key={`${one.x}-${one.y}`}
              x={left + (one.x - grid.width / 2) * scale}
              y={top + (one.y - grid.height / 2) * scale}
              width={grid.width * scale}
              height={grid.height * scale}
              fill={`url(#${pattern})`}
            />
          ))}
          {report.coverage.map((one) =>
            one.name ? (
              <text
                key={one.name}
                x={left + one.x * scale + 10}
                y={top + one.y * scale + 4}
                fontSize={13}
                fontWeight={650}
                fill={theme.ink}
                stroke={theme.surface}
                strokeWidth={4}
                paintOrder="stroke"
              >
                {one.name}
              </text>
            ) : null,
          )}
          {place ? <Cross x={left + place.x * scale} y={top + place.y * scale} /> : null}
        </svg>
      </Box>
      <figcaption>
        {uncovered.length
          ? "hatched: sharp in no frame. "
          : "Every place that can be judged is sharp in some frame. "}
        Press a place to see which frame holds it.
      </figcaption>
    </Figure>
  );
}

function Cross({ x, y }: { x: number; y: number }) {
  const theme = useTheme();
  return (
    <g fill="none" strokeLinecap="square">
      <circle cx={x} cy={y} r={9} stroke={theme.surface} strokeWidth={4} />
      <circle cx={x} cy={y} r={9} stroke={theme.strong} strokeWidth={2} />
    </g>
  );
}
