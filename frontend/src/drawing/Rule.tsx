import { memo } from "react";
import { useTheme } from "styled-components";
import { fonts } from "../look/theme";
import type { Units } from "../units/units";
import { ruleTicks, type Viewport } from "./viewport";

const LENGTHS = { major: 15, half: 10, minor: 6 };
const HEIGHT = 34;

interface RuleProps {
  view: Viewport;
  units: Units;
  from: number;
  to: number;
  /** What no frame holds, on the rule's own scale. */
  gaps?: readonly (readonly number[])[] | undefined;
}

/** The rule under the drawing: everything with a depth stands on it. */
export const Rule = memo(function Rule({ view, units, from, to, gaps = [] }: RuleProps) {
  const theme = useTheme();
  return (
    <svg width={view.width} height={HEIGHT} aria-hidden style={{ display: "block" }}>
      <rect
        x={0.5}
        y={4.5}
        width={view.width - 1}
        height={HEIGHT - 6}
        fill={theme.surface}
        stroke={theme.strong}
      />
      <rect
        x={view.x(from)}
        y={2}
        width={Math.max(view.x(to) - view.x(from), 1.5)}
        height={4}
        fill={theme.subject}
      />
      {gaps.map(([near = 0, far = 0]) => (
        <rect
          key={near}
          x={view.x(near)}
          y={0}
          width={Math.max(view.x(far) - view.x(near), 2)}
          height={7}
          fill={theme.trouble}
        />
      ))}
      <Ticks view={view} units={units} />
    </svg>
  );
});

/** Apart, so that a hundred ticks are not drawn anew while something moves along them. */
const Ticks = memo(function Ticks({ view, units }: { view: Viewport; units: Units }) {
  const theme = useTheme();
  const ticks = ruleTicks(view, units === "in" ? 25.4 : 1);
  return (
    <>
      {ticks.map((tick) => {
        const x = Math.round(view.x(tick.place)) + 0.5;
        return (
          <g key={tick.place}>
            <line x1={x} x2={x} y1={5} y2={5 + LENGTHS[tick.rank]} stroke={theme.strong} strokeWidth={1} />
            {tick.label !== null && x > 14 && x < view.width - 14 ? (
              <text
                x={x}
                y={HEIGHT - 5}
                textAnchor="middle"
                fontSize={10.5}
                fontFamily={fonts.figures}
                fill={theme.soft}
              >
                {tick.label}
              </text>
            ) : null}
          </g>
        );
      })}
    </>
  );
});
