import type { CheckReport, FindingReport, ProofMethod } from "../../api/types";
import { doubted, figures, length } from "../../units/format";
import type { Units } from "../../units/units";

export const METHOD_WORDS: Record<ProofMethod, string> = {
  windowed: "Detail near its depth",
  depth: "By depth",
  pyramid: "By detail",
};

export const METHOD_HINTS: Record<ProofMethod, string> = {
  windowed: "for most subjects",
  depth: "for smooth surfaces",
  pyramid: "for hairs and edges that cross",
};

/** Reasons for which a frame is left out that one may see otherwise. */
export const WHY_LEFT_OUT: readonly string[] = ["shake", "dead_flash"];

/** A finding as a kind of mark: what costs the picture is broken through, a word is thin. */
export const weightOf = (finding: FindingReport) =>
  finding.costs >= 3 ? "dear" : finding.costs === 2 ? "work" : "word";

const span = (values: number[]) => (values.length ? Math.max(...values) - Math.min(...values) : null);

/** The figures under the findings. */
export function factsOf(report: CheckReport, units: Units): (readonly [string, string])[] {
  const used = report.frames.filter((frame) => frame.used);
  const light = span(used.flatMap((frame) => (frame.ev === null ? [] : [frame.ev])));
  const step = report.plan.step_mm;
  const measured = report.step_measured;
  const share = report.covered_share;
  return [
    [
      "frames used",
      used.length === report.frames.length ? `${used.length}` : `${used.length} of ${report.frames.length}`,
    ],
    ["places sharp somewhere", share === null ? "unknown" : `${figures(100 * share)} %`],
    ["without texture", `${figures(100 * report.unknown_share, 2)} %`],
    ["step, planned", step === null ? "no plan" : length(step, units)],
    // How wide what each frame holds is tells steps against each other only; how much the view grows, their length.
    ...(measured
      ? [["step, by how the view grows", doubted(measured.step_mm, measured.doubt_mm, units)] as const]
      : []),
    ["light, widest apart", light === null ? "unknown" : `${light.toFixed(2)} stops`],
  ];
}
