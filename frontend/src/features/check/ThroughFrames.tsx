import { useQuery } from "@tanstack/react-query";
import styled, { useTheme } from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { CheckReport, PlaceAnswer } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { useSize } from "../../drawing/useSize";
import { fonts } from "../../look/theme";
import { length } from "../../units/format";
import type { Place } from "./CoveredPicture";
import { columns } from "./grid";

const HEIGHT = 96;

const Box = styled.div`
  p {
    font-size: 13px;
    color: ${({ theme }) => theme.soft};
  }
  strong {
    color: ${({ theme }) => theme.ink};
    font-weight: 650;
  }
  svg {
    display: block;
    border: 1px solid ${({ theme }) => theme.line};
    background: ${({ theme }) => theme.surface};
  }
`;

/** A place through the frames: how much of its finest detail each holds. */
export function ThroughFrames({
  report,
  jobId,
  place,
}: {
  report: CheckReport;
  jobId: string;
  place: Place | null;
}) {
  const { units } = usePreferences();
  const [box, size] = useSize<HTMLDivElement>();
  const asked = useQuery({
    queryKey: ["place", jobId, place?.x, place?.y],
    enabled: place !== null,
    placeholderData: (last) => last,
    queryFn: () =>
      dataOf(
        api.GET("/api/jobs/{job_id}/place", {
          params: { path: { job_id: jobId }, query: { x: place?.x ?? 0, y: place?.y ?? 0 } },
        }),
      ),
  });
  const answer = place ? asked.data : undefined;
  return (
    <Box ref={box}>
      <p>That place: how much of its finest detail each frame holds</p>
      <Stems answer={answer} count={report.frames.length} width={Math.max(size.width - 2, 1)} />
      <p aria-live="polite">
        {asked.error ? sentenceOf(asked.error) : said(answer, report, (value) => length(value, units))}
      </p>
    </Box>
  );
}

function said(answer: PlaceAnswer | undefined, report: CheckReport, told: (mm: number) => string) {
  if (!answer) return "Press a place in the picture.";
  if (answer.best_frame === null) return "Nobody can tell: that place has no texture to judge by.";
  const frame = report.frames[answer.best_frame];
  const depth = answer.depth_mm === null ? "" : `, ${told(answer.depth_mm)} behind the nearest point`;
  return (
    <>
      Held best by <strong>{frame?.file}</strong>
      {depth}.
    </>
  );
}

function Stems({ answer, count, width }: { answer: PlaceAnswer | undefined; count: number; width: number }) {
  const theme = useTheme();
  const { x, each } = columns(count, width - 16);
  const y = (share: number) => HEIGHT - 22 - share * (HEIGHT - 34);
  return (
    <svg width={width} height={HEIGHT} aria-hidden>
      <line x1={8} x2={width - 8} y1={y(0)} y2={y(0)} stroke={theme.line} />
      {answer?.contrast.map((share, index) => {
        if (share === null) return null;
        const best = index === answer.best_frame;
        return (
          <g key={index}>
            <line x1={8 + x(index)} x2={8 + x(index)} y1={y(0)} y2={y(share)} stroke={theme.line} />
            <circle
              cx={8 + x(index)}
              cy={y(share)}
              r={Math.min(best ? 5 : 3.5, each / 2)}
              fill={best ? theme.sharp : theme.surface}
              stroke={theme.strong}
            />
            {best ? (
              <text
                x={8 + x(index)}
                y={HEIGHT - 6}
                textAnchor="middle"
                fontSize={11}
                fontFamily={fonts.figures}
                fill={theme.soft}
              >
                {index + 1}
              </text>
            ) : null}
          </g>
        );
      })}
    </svg>
  );
}
