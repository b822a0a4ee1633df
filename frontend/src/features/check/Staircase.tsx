import { useId } from "react";
import styled, { useTheme } from "styled-components";
import type { CheckReport } from "../../api/types";
import { Rule } from "../../drawing/Rule";
import { useSize } from "../../drawing/useSize";
import { makeViewport } from "../../drawing/viewport";
import { usePreferences } from "../../look/preferences";
import { fonts } from "../../look/theme";
import { treads } from "./treads";

const Box = styled.div`
  p {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
    margin-bottom: 2px;
  }
`;

/** Height that the rows share, px: past sixty frames they become hairlines. */
const ROOM = 152;

/** Under the rule a row a frame: outline as planned, filled as found; a gap is a hatched column through all rows. */
export function Staircase({ report }: { report: CheckReport }) {
  const { units } = usePreferences();
  const theme = useTheme();
  const pattern = useId();
  const [box, size] = useSize<HTMLDivElement>();
  const stairs = treads(report);
  if (!stairs) {
    return <Box>Where the frames stand cannot be told in millimetres: the step is not known.</Box>;
  }
  const { rows, from, to, near, far } = stairs;
  const width = Math.max(size.width, 1);
  const view = makeViewport(width, 100, (from + to) / 2, (width - 76) / Math.max(to - from, 1e-9));
  const tall = Math.min(Math.max(Math.floor(ROOM / rows.length), 2), 10);
  const height = rows.length * tall + 8;
  const every = Math.max(Math.ceil(14 / tall), 1);
  return (
    <Box ref={box}>
      <p>
        {units} behind the nearest point that must be sharp · a row a frame: outline as planned, filled as
        found
      </p>
      {size.width > 60 ? (
        <>
          <Rule view={view} units={units} from={near} to={far} />
          <svg
            width={width}
            height={height}
            role="img"
            aria-label="Which depth each frame holds"
            style={{ display: "block" }}
          >
            <defs>
              <pattern
                id={pattern}
                width={6}
                height={6}
                patternUnits="userSpaceOnUse"
                patternTransform="rotate(45)"
              >
                <line x1={0} x2={0} y1={0} y2={6} stroke={theme.trouble} strokeWidth={1.5} />
              </pattern>
            </defs>
            {report.gaps.map((gap) =>
              gap.from_mm === null || gap.to_mm === null ? null : (
                <rect
                  key={gap.from_mm}
                  x={view.x(gap.from_mm)}
                  y={0}
                  width={Math.max(view.x(gap.to_mm) - view.x(gap.from_mm), 2)}
                  height={height}
                  fill={`url(#${pattern})`}
                />
              ),
            )}
            {rows.map((row, index) => (
              <g key={row.frame}>
                {row.planned ? (
                  <rect
                    x={view.x(row.planned[0])}
                    y={index * tall + 2}
                    width={view.x(row.planned[1]) - view.x(row.planned[0])}
                    height={tall - 2}
                    fill="none"
                    stroke={theme.line}
                  />
                ) : null}
                <rect
                  x={view.x(row.found[0])}
                  y={index * tall + 2}
                  width={view.x(row.found[1]) - view.x(row.found[0])}
                  height={tall - 2}
                  fill={row.used ? theme.sharp : "none"}
                  stroke={row.used ? theme.sharpEdge : theme.trouble}
                  strokeDasharray={row.used ? undefined : "3 2"}
                />
                {index % every === 0 || !row.used ? (
                  <text
                    x={view.x(row.found[1]) + 5}
                    y={index * tall + tall}
                    fontSize={10}
                    fontFamily={fonts.figures}
                    fill={row.used ? theme.soft : theme.trouble}
                  >
                    {row.frame + 1}
                  </text>
                ) : null}
              </g>
            ))}
          </svg>
        </>
      ) : null}
    </Box>
  );
}
