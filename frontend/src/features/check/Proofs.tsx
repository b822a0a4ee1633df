import { useRef, useState, type ReactNode } from "react";
import styled from "styled-components";
import type { CheckReport } from "../../api/types";
import { Pick } from "../../controls/Pick";
import { Segments } from "../../controls/Segments";
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

const Panes = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  min-height: 0;
`;

const Pane = styled.div`
  min-width: 0;
  min-height: 0;
  overflow: auto;
  border: 1px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.surface};
  img {
    display: block;
  }
  &[data-scale="whole"] {
    overflow: hidden;
    img {
      width: 100%;
      height: 100%;
      object-fit: contain;
    }
  }
`;

const Said = styled.p`
  font-size: 12.5px;
  color: ${({ theme }) => theme.soft};
`;

const SCALES = [
  { id: "whole", label: "Whole" },
  { id: "full", label: "100 %" },
  { id: "double", label: "200 %" },
] as const;

type Scale = (typeof SCALES)[number]["id"];

/** Two pictures of the same place at the same scale, moved together: proofs, and any single frame. */
export function Proofs({ report, jobId, choice }: { report: CheckReport; jobId: string; choice: ReactNode }) {
  const options = sources(report, jobId);
  const [left, setLeft] = useState(options[0]?.id ?? "");
  const [right, setRight] = useState(options[1]?.id ?? options[0]?.id ?? "");
  const [scale, setScale] = useState<Scale>("whole");
  const panes = [useRef<HTMLDivElement>(null), useRef<HTMLDivElement>(null)] as const;
  const together = (from: 0 | 1) => {
    const [here, there] = [panes[from].current, panes[from === 0 ? 1 : 0].current];
    if (!here || !there) return;
    if (Math.abs(there.scrollLeft - here.scrollLeft) > 0.5) there.scrollLeft = here.scrollLeft;
    if (Math.abs(there.scrollTop - here.scrollTop) > 0.5) there.scrollTop = here.scrollTop;
  };
  return (
    <Layout>
      <Tools>
        <Pick label="On the left" value={left} options={options} onChange={setLeft} />
        <Pick label="On the right" value={right} options={options} onChange={setRight} />
        <Segments label="Scale" value={scale} options={SCALES} onChange={setScale} />
        {choice}
      </Tools>
      <Panes>
        {[left, right].map((id, index) => {
          const source = options.find((option) => option.id === id) ?? options[0];
          return source ? (
            <Pane
              key={index}
              ref={panes[index as 0 | 1]}
              data-scale={scale}
              tabIndex={0}
              aria-label={source.label}
              onScroll={() => together(index as 0 | 1)}
            >
              <img src={source.href} alt={source.label} {...sized(source, scale)} />
            </Pane>
          ) : null;
        })}
      </Panes>
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

interface Source {
  id: string;
  label: string;
  href: string;
  width: number;
  height: number;
}

function sources(report: CheckReport, jobId: string): Source[] {
  const [width = 0, height = 0] = report.size;
  return [
    ...report.pictures.map(({ method }) => ({
      id: method,
      label: `Proof: ${METHOD_WORDS[method].toLowerCase()}`,
      href: `/api/jobs/${jobId}/proofs/${method}`,
      width,
      height,
    })),
    ...report.frames.flatMap((frame, index) =>
      frame.to_reference
        ? [
            {
              id: `frame-${index}`,
              label: `Frame ${index + 1}, ${frame.file}`,
              href: `/api/jobs/${jobId}/frames/${index}?width=20000&cropped=yes`,
              width,
              height,
            },
          ]
        : [],
    ),
  ];
}

function sized(source: Source, scale: Scale) {
  if (scale === "whole") return {};
  const times = scale === "double" ? 2 : 1;
  return { width: source.width * times, height: source.height * times };
}
