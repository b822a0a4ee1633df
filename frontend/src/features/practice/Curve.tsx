import styled from "styled-components";
import type { PracticeResult } from "../../api/types";

const WIDTH = 240;
const HEIGHT = 44;
const LATEST = 24;

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
`;

/** Results of one drill in the order they were played; the line is at 70. */
export function Curve({ results, name }: { results: readonly PracticeResult[]; name: string }) {
  const shown = results.slice(-LATEST);
  if (!shown.length) return null;
  const at = (index: number) => 4 + ((WIDTH - 8) * index) / Math.max(LATEST - 1, 1);
  const high = (score: number) => HEIGHT - 4 - ((HEIGHT - 8) * score) / 100;
  const best = Math.round(Math.max(...shown.map((each) => each.score)));
  return (
    <Drawing
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${name}: ${shown.length} results, best ${best}`}
    >
      <line x1={0} x2={WIDTH} y1={high(70)} y2={high(70)} />
      <path d={shown.map((each, index) => `${index ? "L" : "M"}${at(index)} ${high(each.score)}`).join("")} />
      {shown.map((each, index) => (
        <circle key={each.result_id} cx={at(index)} cy={high(each.score)} r={2.2} />
      ))}
    </Drawing>
  );
}
