import type { KeyboardEvent, PointerEvent } from "react";
import styled, { useTheme } from "styled-components";
import type { RulerAnswer } from "../../api/types";
import { useSize } from "../../drawing/useSize";
import { fitted, nudged, placed, type Point } from "../../drawing/picture";

const Box = styled.section`
  position: relative;
  min-width: 0;
  min-height: 0;
  margin: 16px 20px;
  overflow: hidden;
  img,
  svg {
    position: absolute;
    display: block;
  }
`;

const Nothing = styled.p`
  margin: 18vh auto 0;
  max-width: 420px;
  color: ${({ theme }) => theme.soft};
`;

interface FrameProps {
  found: RulerAnswer | null;
  byHand: boolean;
  points: Point[];
  onPoints: (points: Point[]) => void;
}

/** The photograph with the ticks that were found, or the two points placed by hand. */
export function Frame({ found, byHand, points, onPoints }: FrameProps) {
  const theme = useTheme();
  const [box, size] = useSize<HTMLElement>();
  if (!found) {
    return (
      <Box ref={box} aria-label="The photograph">
        <Nothing>No photograph yet. JPEG, PNG and TIFF are read; it is looked at here and not kept.</Nothing>
      </Box>
    );
  }
  const { width_px, height_px, preview } = found.picture;
  const { scale, left, top } = fitted(width_px, height_px, size.width || 1, size.height || 1);
  const [width, height] = [width_px * scale, height_px * scale];
  const place = { left, top, width, height };
  const marks = found.marks_px.map(([x1, y1, x2, y2]) => line(x1, y1, x2, y2, scale)).join("");
  const put = (event: PointerEvent<SVGSVGElement>) => {
    const corner = event.currentTarget.getBoundingClientRect();
    onPoints(
      placed(points, { x: (event.clientX - corner.left) / scale, y: (event.clientY - corner.top) / scale }),
    );
  };
  const onKeyDown = (index: number) => (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 1;
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    onPoints(points.map((point, at) => (at === index ? nudged(point, ...move, width_px, height_px) : point)));
  };
  return (
    <Box ref={box} aria-label="The photograph">
      <img src={preview} alt="The photograph that was sent" style={place} />
      <svg
        style={{ ...place, cursor: byHand ? "crosshair" : "default" }}
        viewBox={`0 0 ${width} ${height}`}
        role="group"
        aria-label={byHand ? "Points placed by hand" : `${found.ticks} ticks found`}
        onPointerDown={byHand ? put : undefined}
      >
        {byHand ? (
          <>
            {points.length === 2 ? (
              <polyline
                points={points.map((point) => `${point.x * scale},${point.y * scale}`).join(" ")}
                stroke={theme.surface}
                strokeWidth={2}
                fill="none"
              />
            ) : null}
            {points.map((point, index) => (
              <g
                key={index}
                tabIndex={0}
                role="img"
                aria-label={`Point ${index + 1}; arrows move it`}
                onKeyDown={onKeyDown(index)}
                transform={`translate(${point.x * scale} ${point.y * scale})`}
              >
                <circle r={13} fill="transparent" stroke={theme.surface} strokeWidth={5} />
                <circle r={13} fill="none" stroke={theme.subject} strokeWidth={2} />
                <path d="M-20 0h14M6 0h14M0-20v14M0 6v14" stroke={theme.subject} strokeWidth={2} />
              </g>
            ))}
          </>
        ) : (
          [
            { colour: theme.surface, width: 4.5 },
            { colour: theme.subject, width: 2 },
          ].map(({ colour, width: strokeWidth }) => (
            <path key={strokeWidth} d={marks} stroke={colour} strokeWidth={strokeWidth} fill="none" />
          ))
        )}
      </svg>
    </Box>
  );
}

function line(x1 = 0, y1 = 0, x2 = 0, y2 = 0, scale: number): string {
  return `M${(x1 * scale).toFixed(1)} ${(y1 * scale).toFixed(1)}L${(x2 * scale).toFixed(1)} ${(y2 * scale).toFixed(1)}`;
}
