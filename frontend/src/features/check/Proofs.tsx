import { useQuery } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import styled from "styled-components";
import { api, dataOf } from "../../api/client";
import type { CheckReport, MarksReport } from "../../api/types";
import { Check } from "../../controls/Check";
import { Pick } from "../../controls/Pick";
import { Segments } from "../../controls/Segments";
import { TiledPanes } from "../../drawing/TiledPanes";
import type { View } from "../../drawing/tiles";
import { figures } from "../../units/format";
import { shareOver } from "./cells";
import { DIFFERS, Marks } from "./Marks";
import { useSources } from "./useSources";
import { METHOD_WORDS } from "./words";

const Layout = styled.div`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
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

const Over = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 22px;
`;

const SCALES = [
  { id: "whole", label: "Whole" },
  { id: "full", label: "100 %" },
  { id: "double", label: "200 %" },
] as const;

type Scale = (typeof SCALES)[number]["id"] | "free";

/** Px of the screen to one of the picture. */
const scaleOf = (scale: Scale) => (scale === "double" ? 2 : 1) / window.devicePixelRatio;

const named = (view: View | null): Scale =>
  view === null
    ? "whole"
    : (SCALES.find(({ id }) => id !== "whole" && Math.abs(view.scale / scaleOf(id) - 1) < 1e-6)?.id ??
      "free");

interface Props {
  report: CheckReport;
  shotId: string;
  jobId: string;
  /** Stands among the tools. */
  choice: ReactNode;
}

/** Two pictures of the same place at the same scale, moved together: proofs, those of other looks, and any single
 * frame; marks over them. */
export function Proofs({ report, shotId, jobId, choice }: Props) {
  const [chosen, setChosen] = useState<{ left: string | null; right: string | null }>({
    left: null,
    right: null,
  });
  const { options, picture } = useSources(shotId, jobId, report, [chosen.left, chosen.right]);
  // What is shown unasked is of this look; others are fetched once they are chosen.
  const here = options.filter(({ id }) => picture(id));
  const best = here.find(({ id }) => id === report.method_that_suits) ?? here[0];
  const left = chosen.left ?? best?.id ?? null;
  const beside = here.find((other) => other !== best) ?? best;
  const right = chosen.right ?? beside?.id ?? null;
  const [view, setView] = useState<View | null>(null);
  const [over, setOver] = useState({ depth: false, brush: false, differ: false });
  const marks = useMarks(jobId, report);
  const size = { width: report.size[0] ?? 1, height: report.size[1] ?? 1 };
  const shown = options.length ? [picture(left), picture(right)] : [];
  const differences = differenceOf(marks, left, right);
  const scaled = (scale: Scale) =>
    setView(
      scale === "whole"
        ? null
        : { x: view?.x ?? size.width / 2, y: view?.y ?? size.height / 2, scale: scaleOf(scale) },
    );
  return (
    <Layout>
      <Tools>
        <Pick
          label="On the left"
          value={left}
          options={options}
          onChange={(id) => setChosen({ ...chosen, left: id })}
        />
        <Pick
          label="On the right"
          value={right}
          options={options}
          onChange={(id) => setChosen({ ...chosen, right: id })}
        />
        <Segments<Scale> label="Scale" value={named(view)} options={SCALES} onChange={scaled} />
        {choice}
      </Tools>
      <Over role="group" aria-label="Draw over the pictures">
        {marks ? (
          <Check
            label={`depth in ${marks.unit}`}
            value={over.depth}
            onChange={(depth) => setOver({ ...over, depth })}
          />
        ) : null}
        {marks && report.brush_share ? (
          <Check
            label="what needs the brush"
            value={over.brush}
            onChange={(brush) => setOver({ ...over, brush })}
          />
        ) : null}
        {differences ? (
          <Check
            label={`where these two differ: ${figures(100 * shareOver(differences, DIFFERS), 2)} % of it`}
            value={over.differ}
            onChange={(differ) => setOver({ ...over, differ })}
          />
        ) : null}
      </Over>
      <TiledPanes
        pictures={shown}
        size={size}
        view={view}
        onView={setView}
        over={(place) =>
          marks ? (
            <Marks
              marks={marks}
              place={place}
              size={size}
              depth={over.depth}
              brush={over.brush}
              differences={over.differ ? differences : null}
            />
          ) : null
        }
      />
      <Said>
        {report.pictures.length
          ? `A proof to decide by, not to retouch. ${fogWords(report)}${
              shown.some((each) => each?.placed)
                ? " The other look lies by its place in the frame, not detail on detail."
                : ""
            }`
          : "No proof was made of these frames. Ask for one on the left, and look again."}
      </Said>
    </Layout>
  );
}

function useMarks(jobId: string, report: CheckReport): MarksReport | undefined {
  return useQuery({
    queryKey: ["marks", jobId],
    enabled: report.depth !== null,
    staleTime: Infinity,
    queryFn: () => dataOf(api.GET("/api/jobs/{job_id}/marks", { params: { path: { job_id: jobId } } })),
  }).data;
}

/** Where two proofs differ, by cell; null where one of them is no proof. */
function differenceOf(
  marks: MarksReport | undefined,
  one: string | null,
  other: string | null,
): number[] | null {
  const found = marks?.differences.find(
    (each) => (each.one === one && each.other === other) || (each.one === other && each.other === one),
  );
  return found?.levels ?? null;
}

/** What stays whatever the method, and which suits. */
function fogWords(report: CheckReport): string {
  const suits = report.method_that_suits;
  const best = suits ? `By its depth this subject suits “${METHOD_WORDS[suits].toLowerCase()}”. ` : "";
  const share = report.brush_share;
  if (share === null || share < 0.001) return best;
  return `${best}${figures(100 * share, 2)} % of it lies in the fog of nearer parts, which no merge takes away: it needs the brush.`;
}
