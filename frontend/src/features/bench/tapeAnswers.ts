/** What each station says on the tape: its answer, and a small line under it. */
import type { CheckReport, Job, Plan, LogEntry, Run, Shot, WayAnswer } from "../../api/types";
import { shutter } from "../../api/shutter";
import type { Units } from "../../units/units";
import { frames, length, seconds, size, stop, times } from "../../units/format";
import { stationOf, type StationId } from "../../shot/stations";
import type { Whose } from "../check/whose";

export interface TapeAnswer {
  answer: string;
  small: string;
  trouble: boolean;
}

/** The last check, as far as the tape speaks of it. */
export interface Checked {
  whose: Whose;
  state: Job["state"];
  report: Pick<CheckReport, "gaps" | "verdict"> | null;
}

export function tapeAnswers(
  shot: Shot,
  plan: Plan | null,
  way: WayAnswer | null,
  refusedFields: string[],
  units: Units,
  checked: Checked | null = null,
  run: Run | null = null,
  entries: readonly LogEntry[] = [],
): Record<StationId, TapeAnswer> {
  const troubled = new Set(
    [
      ...refusedFields,
      ...(plan?.findings ?? [])
        .filter((finding) => finding.severity === "trouble")
        .map((finding) => finding.field),
    ].map(stationOf),
  );
  const say = (station: StationId, answer: string, small: string): TapeAnswer => {
    const trouble = troubled.has(station);
    return { answer, small: trouble ? "needs attention" : small, trouble };
  };
  const depth = plan?.depth_from_points ? plan.depth_mm : shot.subject.depth_mm;
  const reach = plan?.reach;
  const aperture = plan?.aperture;
  const light = plan?.light;
  const stack = way?.stack
    ? way
    : plan?.ways.find((each) => each.id === (way?.kind === "ring" ? "ring" : "rail"));
  const hold = shot.subject.hold_still_s;
  return {
    subject: say(
      "subject",
      `${length(depth, units)} deep`,
      hold === null ? "holds still" : `holds ${seconds(hold)}`,
    ),
    reach: say(
      "reach",
      reach ? times(reach.magnification) : "no reach",
      reach ? size(reach.frame_width_mm, reach.frame_height_mm, units) : "",
    ),
    aperture: say(
      "aperture",
      stop(aperture?.f_number ?? shot.aperture.f_number),
      apertureWords(aperture, way),
    ),
    plane: say("plane", ...planeAnswer(plan)),
    stack: say(
      "stack",
      way?.kind === "one_frame" ? instead(way, stack) : stack?.frames ? frames(stack.frames) : "—",
      way?.kind !== "one_frame" && stack?.stack ? stepWords(stack.stack, units) : "",
    ),
    light: say("light", ...lightWords(light, aperture, way)),
    run: run ? runAnswer(run) : say("run", ...runPlanned(way)),
    check: checkAnswer(checked, run),
    log: say("log", ...logWords(entries)),
  };
}

/** What is said of a stack where one frame is taken. */
function instead(way: WayAnswer, stack: WayAnswer | undefined): string {
  if (way.cover >= 1) return "not needed";
  return stack?.frames ? "not this way" : "none can be";
}

function stepWords(stack: NonNullable<WayAnswer["stack"]>, units: Units): string {
  const { step_mm: least, largest_step_mm: most } = stack;
  return most > least * 1.02 ? `steps from ${length(least, units)}` : `step ${length(least, units)}`;
}

function runPlanned(way: WayAnswer | null): [string, string] {
  return way?.frames ? [frames(way.frames), seconds(way.time_s)] : ["—", ""];
}

function logWords(entries: readonly LogEntry[]): [string, string] {
  if (!entries.length) return ["—", "no runs yet"];
  const count = entries.length === 1 ? "1 entry" : `${entries.length} entries`;
  return [count, entries[0]?.note.good ?? "not judged yet"];
}

/** How far the last run is. */
function runAnswer(run: Run): TapeAnswer {
  const taken = run.times_taken.filter((times) => times > 0).length;
  const words = { running: "under way", paused: "paused", stopped: "stopped", finished: "all taken" }[
    run.state
  ];
  return { answer: `${taken} of ${run.times_taken.length}`, small: words, trouble: false };
}

/** What the last look through the frames says. */
function checkAnswer(checked: Checked | null, run: Run | null): TapeAnswer {
  const taken = run?.times_taken.some(Boolean) ?? false;
  const none = { answer: "—", small: taken ? "not looked at yet" : "no frames yet", trouble: false };
  if (!checked || checked.whose === "before") return none;
  const { state, report } = checked;
  if (state === "failed") return { answer: "failed", small: "needs attention", trouble: true };
  if (!report)
    return {
      answer: state === "done" || state === "cancelled" ? "—" : "looking…",
      small: "",
      trouble: false,
    };
  const gaps = report.gaps.length;
  const elsewhere = checked.whose === "elsewhere" && "in another folder";
  if (gaps)
    return {
      answer: gaps === 1 ? "1 gap" : `${gaps} gaps`,
      small: elsewhere || "the set stays",
      trouble: true,
    };
  return report.verdict.may_come_down
    ? { answer: "all there", small: elsewhere || "may come down", trouble: false }
    : { answer: "not yet", small: elsewhere || "the set stays", trouble: true };
}

/** Where the way looked at is taken at another stop than the one set, that is said beside it. */
function apertureWords(aperture: Plan["aperture"] | undefined, way: WayAnswer | null): string {
  if (!aperture) return "";
  const other = otherStop(aperture, way);
  if (other) return `this way at ${stop(other.f_number)}`;
  return `works as ${stop(aperture.effective_f_number)}`;
}

/** The way looked at, where it is taken at another stop than the one set. */
function otherStop(aperture: Plan["aperture"] | undefined, way: WayAnswer | null): WayAnswer | null {
  return aperture && way?.frames && Math.abs(way.f_number / aperture.f_number - 1) > 1e-6 ? way : null;
}

function lightWords(
  light: Plan["light"] | undefined,
  aperture: Plan["aperture"] | undefined,
  way: WayAnswer | null,
): [string, string] {
  if (!light) return ["—", ""];
  const other = otherStop(aperture, way);
  const answer = other ? shutter(other.steady.shutter_s) : light.shutter_words;
  if (!light.read) return [answer, "not metered yet"];
  return [answer, other ? `at ${stop(other.f_number)}` : lost(light.stops_lost)];
}

function lost(stops: number): string {
  return stops < 0.05 ? "no light lost" : `${stops.toFixed(1)} stops lost`;
}

function planeAnswer(plan: Plan | null): [string, string] {
  const plane = plan?.plane;
  if (!plane || !plane.points.length) return ["no points", plane?.steepest_deg ? "this lens tilts" : ""];
  if (plane.setting && plane.setting.tilt_deg >= 0.05) {
    return [`tilt ${plane.setting.tilt_deg.toFixed(1)}°`, plane.limited ? "all it has" : plane.setting.faces];
  }
  if (plane.angle_deg !== null) {
    return [`${plane.angle_deg.toFixed(0)}° from square`, plane.setting ? "no tilt needed" : "no tilt here"];
  }
  return [`${plane.points.length} ${plane.points.length === 1 ? "point" : "points"}`, "no plane yet"];
}
