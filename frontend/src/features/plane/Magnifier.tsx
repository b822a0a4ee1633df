import { memo, useId } from "react";
import { useTheme } from "styled-components";
import type { PointAnswer } from "../../api/types";

const SIDE = 132;
const TIMES = 5;

interface MagnifierProps {
  photograph: string;
  point: PointAnswer;
  width: number;
  height: number;
}

/** What lies under the point, five times as large, in the corner away from it. */
export const Magnifier = memo(function Magnifier(props: MagnifierProps) {
  const { photograph, point, width, height } = props;
  const theme = useTheme();
  const clip = useId();
  const side = Math.min(SIDE, width / 3, height / 2);
  const x = point.from_left > 0.5 ? 6 : width - side - 6;
  const y = point.from_top > 0.5 ? 6 : height - side - 6;
  return (
    <g transform={`translate(${x} ${y})`} pointerEvents="none" aria-hidden>
      <clipPath id={clip}>
        <rect width={side} height={side} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        <rect width={side} height={side} fill={theme.surface} />
        <image
          href={`/api/photographs/${photograph}`}
          x={side / 2 - point.from_left * width * TIMES}
          y={side / 2 - point.from_top * height * TIMES}
          width={width * TIMES}
          height={height * TIMES}
          preserveAspectRatio="xMidYMid meet"
        />
      </g>
      <rect width={side} height={side} fill="none" stroke={theme.strong} strokeWidth={2} />
      <path
        d={`M${side / 2} ${side / 2 - 16}v10m0 12v10M${side / 2 - 16} ${side / 2}h10m12 0h10`}
        stroke={theme.sharp}
        strokeWidth={1.5}
      />
    </g>
  );
});
