import { useQueries, useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";
import type { CheckReport, Job } from "../../api/types";
import type { Tiled } from "../../drawing/TiledPanes";
import { placedOn } from "./placed";
import { checksOf } from "./useCheck";
import { METHOD_WORDS } from "./words";

/** Pictures that may stand beside each other: proofs and frames of this look, and proofs of the shot's other looks. */
export function useSources(
  shotId: string,
  jobId: string,
  report: CheckReport,
  chosen: readonly (string | null)[],
) {
  const list = useQuery(checksOf(shotId));
  const others = (list.data?.jobs ?? []).filter((job) => job.job_id !== jobId && job.proofs.length > 0);
  const asked = others.filter(({ job_id }) => chosen.some((id) => id?.startsWith(`${job_id}/`)));
  const looked = useQueries({
    queries: asked.map(({ job_id }) => ({
      queryKey: ["look", job_id],
      staleTime: Infinity,
      queryFn: () => dataOf(api.GET("/api/jobs/{job_id}", { params: { path: { job_id } } })),
    })),
  });
  const own = sources(report, jobId);
  const fetched = looked.flatMap(({ data }) =>
    data?.report ? sourcesOfOther(data.report, data, report) : [],
  );
  const options: { id: string; label: string }[] = [
    ...own.filter(({ id }) => !id.startsWith("frame-")),
    ...others.flatMap((job) =>
      job.proofs.map((method) => ({ id: `${job.job_id}/${method}`, label: labelOf(job, method) })),
    ),
    ...own.filter(({ id }) => id.startsWith("frame-")),
  ];
  const pictures = new Map([...own, ...fetched].map((each) => [each.id, each]));
  return { options, picture: (id: string | null): Tiled | null => pictures.get(id ?? "") ?? null };
}

/** When it was looked through, by which method, and the folder. */
function labelOf(job: Pick<Job, "asked_at" | "folder">, method: keyof typeof METHOD_WORDS): string {
  const when = new Date(job.asked_at).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
  return `Proof of ${when}: ${METHOD_WORDS[method].toLowerCase()}, ${job.folder.split(/[\\/]/).pop() ?? ""}`;
}

const sizeOf = ({ size }: CheckReport) => ({ width: size[0] ?? 1, height: size[1] ?? 1 });

const tileOf = (jobId: string, source: string) => (level: number, column: number, row: number) =>
  `/api/jobs/${jobId}/tiles/${source}/${level}/${column}/${row}`;

function sources(report: CheckReport, jobId: string): Tiled[] {
  const here = { size: sizeOf(report), placed: null };
  return [
    ...report.pictures.map(({ method }) => ({
      ...here,
      id: method,
      label: `Proof: ${METHOD_WORDS[method].toLowerCase()}`,
      tile: tileOf(jobId, method),
    })),
    ...report.frames.flatMap((frame, index) =>
      frame.to_reference
        ? [
            {
              ...here,
              id: `frame-${index}`,
              label: `Frame ${index + 1}, ${frame.file}`,
              tile: tileOf(jobId, `frame-${index}`),
            },
          ]
        : [],
    ),
  ];
}

function sourcesOfOther(report: CheckReport, job: Job, here: CheckReport): Tiled[] {
  return report.pictures.map(({ method }) => ({
    id: `${job.job_id}/${method}`,
    label: labelOf(job, method),
    size: sizeOf(report),
    placed: placedOn(report, here),
    tile: tileOf(job.job_id, method),
  }));
}
