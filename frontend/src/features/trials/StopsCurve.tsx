import styled from "styled-components";
import type { StopsFound } from "../../api/types";
import { fonts } from "../../look/theme";
import { stop } from "../../units/format";

const WIDTH = 520;
const HEIGHT = 176;
const [LEFT, RIGHT, TOP, FOOT] = [10, 10, 10, 26];

const Drawing = styled.svg`
  width: 100%;
  max-width: ${WIDTH}px;
  height: auto;
  font: 500 11px ${fonts.figures};
  text {
    fill: ${({ theme }) => theme.soft};
  }
  .model {
    fill: none;
    stroke: ${({ theme }) => theme.soft};
    stroke-dasharray: 5 4;
  }
  .measured {
    fill: none;
    stroke: ${({ theme }) => theme.ink};
    stroke-width: 2;
  }
  .doubt {
    stroke: ${({ theme }) => theme.ink};
  }
  .point {
    fill: ${({ theme }) => theme.surface};
    stroke: ${({ theme }) => theme.ink};
    stroke-width: 1.5;
  }
  .alike {
    fill: ${({ theme }) => theme.ink};
  }
  .base {
    stroke: ${({ theme }) => theme.line};
  }
`;

const Figure = styled.figure`
  margin: 0;
`;

const Caption = styled.figcaption`
  font-size: 12px;
  color: ${({ theme }) => theme.soft};
`;

/** What was measured at each stop, over what a perfect lens would leave. */
export function StopsCurve({ found }: { found: StopsFound }) {
  const stops = found.stops;
  const tallest = Math.max(...stops.map((each) => Math.max(each.contrast, each.model ?? 0)), 1e-6) * 1.05;
  const at = (index: number) => LEFT + ((WIDTH - LEFT - RIGHT) * (index + 0.5)) / stops.length;
  const high = (value: number) => TOP + (HEIGHT - TOP - FOOT) * (1 - value / tallest);
  const path = (values: (number | null)[]) =>
    values.every((value) => value !== null)
      ? values.map((value, index) => `${index ? "L" : "M"}${at(index)} ${high(value ?? 0)}`).join("")
      : "";
  return (
    <Figure>
      <Drawing
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Contrast by stop: best at ${stop(found.best_f_number)}`}
      >
        <line className="base" x1={LEFT} x2={WIDTH - RIGHT} y1={high(0)} y2={high(0)} />
        <path className="model" d={path(stops.map((each) => each.model))} />
        <path className="measured" d={path(stops.map((each) => each.contrast))} />
        {stops.map((each, index) => (
          <g key={each.f_number}>
            <line
              className="doubt"
              x1={at(index)}
              x2={at(index)}
              y1={high(each.contrast - 2 * each.doubt)}
              y2={high(each.contrast + 2 * each.doubt)}
            />
            <circle
              className={found.alike.includes(each.f_number) ? "point alike" : "point"}
              cx={at(index)}
              cy={high(each.contrast)}
              r={each.f_number === found.best_f_number ? 5.5 : 3.5}
            />
            <text x={at(index)} y={HEIGHT - FOOT + 16} textAnchor="middle">
              {each.f_number}
            </text>
          </g>
        ))}
      </Drawing>
      <Caption>
        solid: measured, with its doubt · broken: a perfect lens · filled: as good as the best
      </Caption>
    </Figure>
  );
}
