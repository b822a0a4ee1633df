import { useState, type ReactNode } from "react";
import styled from "styled-components";
import type { CheckReport } from "../../api/types";
import { Pick } from "../../controls/Pick";
import { Segments } from "../../controls/Segments";
import { HeldTogether, SCALES, type Held, type Scale } from "../../drawing/HeldTogether";
import { figures } from "../../units/format";
import { METHOD_WORDS } from "./words";

const Layout = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 10px;
  min-height: 0;
`;

const Tools = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 190px 190px;
  gap: 14px;
  align-items: end;
`;

const Said = styled.p`
  font-size: 12.5px;
  color: ${({ theme }) => theme.soft};
`;

/** Two pictures of the same place at the same scale, moved together: proofs, and any single frame. */
export function Proofs({ report, jobId, choice }: { report: CheckReport; jobId: string; choice: ReactNode }) {
  const options = sources(report, jobId);
  const [left, setLeft] = useState(options[0]?.id ?? "");
  const [right, setRight] = useState(options[1]?.id ?? options[0]?.id ?? "");
  const [scale, setScale] = useState<Scale>("whole");
  const shown = [left, right].flatMap((id) => options.find((option) => option.id === id) ?? options[0] ?? []);
  return (
    <Layout>
      <Tools>
        <Pick label="On the left" value={left} options={options} onChange={setLeft} />
        <Pick label="On the right" value={right} options={options} onChange={setRight} />
        <Segments label="Scale" value={scale} options={SCALES} onChange={setScale} />
        {choice}
      </Tools>
      <HeldTogether pictures={shown} scale={scale} />
      <Said>
        {report.pictures.length
          ? `A proof to decide by, not to retouch. ${fogWords(report)}`
          : "No proof was made of these frames. Ask for one on the left, and look again."}
      </Said>
    </Layout>
  );
}

/** What stays whatever the method, and which suits. */
function fogWords(report: CheckReport): string {
  const suits = report.method_that_suits;
  const best = suits ? `By its depth this subject suits “${METHOD_WORDS[suits].toLowerCase()}”. ` : "";
  const share = report.brush_share;
  if (share === null || share < 0.001) return best;
  return `${best}${figures(100 * share, 2)} % of it lies in the fog of nearer parts, which no merge takes away: it needs the brush.`;
}

function sources(report: CheckReport, jobId: string): Held[] {
  return [
    ...report.pictures.map(({ method }) => ({
      id: method,
      label: `Proof: ${METHOD_WORDS[method].toLowerCase()}`,
      href: `/api/jobs/${jobId}/proofs/${method}`,
    })),
    ...report.frames.flatMap((frame, index) =>
      frame.to_reference
        ? [
            {
              id: `frame-${index}`,
              label: `Frame ${index + 1}, ${frame.file}`,
              href: `/api/jobs/${jobId}/frames/${index}?width=20000&cropped=yes`,
            },
          ]
        : [],
    ),
  ];
}
