import styled from "styled-components";
import type { PracticeResult } from "../../api/types";
import { fonts } from "../../look/theme";
import { daysOf, GOOD, LATEST } from "./curve";

const WIDTH = 240;
const HEIGHT = 58;
const FOOT = 14;

const Drawing = styled.svg`
  width: 100%;
  max-width: ${WIDTH}px;
  path {
    fill: none;
    stroke: ${({ theme }) => theme.ink};
    stroke-width: 1.5;
  }
  line {
    stroke: ${({ theme }) => theme.line};
  }
  circle {
    fill: ${({ theme }) => theme.ink};
  }
  text {
    font: 500 11px ${fonts.text};
    fill: ${({ theme }) => theme.soft};
  }
`;

/** Results of one drill in the order they were played, day by day; the line across is where a result is good. */
export function Curve({ results, name }: { results: readonly PracticeResult[]; name: string }) {
  const shown = results.slice(-LATEST);
  if (!shown.length) return null;
  const at = (index: number) => 4 + ((WIDTH - 8) * index) / Math.max(LATEST - 1, 1);
  const high = (score: number) => HEIGHT - FOOT - 4 - ((HEIGHT - FOOT - 8) * score) / 100;
  const best = Math.round(Math.max(...shown.map((each) => each.score)));
  const days = daysOf(shown);
  return (
    <Drawing
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${name}: ${shown.length} ${shown.length === 1 ? "result" : "results"}, best ${best}`}
    >
      <line x1={0} x2={WIDTH} y1={high(GOOD)} y2={high(GOOD)} />
      {days.map(({ first, words, told }) => (
        <g key={words}>
          {first ? <line x1={at(first - 0.5)} x2={at(first - 0.5)} y1={0} y2={HEIGHT - FOOT} /> : null}
          {told ? (
            <text x={at(first) - 3} y={HEIGHT - 2}>
              {words}
            </text>
          ) : null}
        </g>
      ))}
      <path d={shown.map((each, index) => `${index ? "L" : "M"}${at(index)} ${high(each.score)}`).join("")} />
      {shown.map((each, index) => (
        <circle key={each.result_id} cx={at(index)} cy={high(each.score)} r={2.2} />
      ))}
    </Drawing>
  );
}
