/** What an entry says, in short: pure. */
import type { LogEntry } from "../../api/types";
import { frames, length, seconds, stop, times } from "../../units/format";
import type { Units } from "../../units/units";

/** What was set, in one line. */
export function setWords(entry: LogEntry, units: Units): string {
  const was = entry.set;
  const parts = [
    was.magnification === null ? "" : times(was.magnification),
    `${stop(was.f_number)}${was.works_as === null ? "" : `, works as ${stop(was.works_as)}`}`,
    was.shutter_words,
    `ISO ${was.iso}`,
    was.kind === "one_frame"
      ? "one frame"
      : `${frames(was.frames_planned)}${was.step_mm === null ? "" : `, step ${length(was.step_mm, units)}`}`,
  ];
  return parts.filter(Boolean).join(" · ");
}

/** What was done and what it cost. */
export function doneWords(entry: LogEntry): string {
  const { done, set } = entry;
  const planned = set.frames_planned + done.added;
  const parts = [
    done.frames_taken === planned
      ? `${frames(planned)} taken`
      : `${done.frames_taken} of ${planned} frames taken`,
    done.taken_again ? `${done.taken_again} once more` : "",
    done.left_out ? `${done.left_out} left out` : "",
    done.added ? `${done.added} added` : "",
    `${seconds(Math.round(done.time_s))}, planned ${seconds(Math.round(set.time_planned_s))}`,
    done.state === "stopped" ? "stopped" : done.state === "finished" ? "" : "not finished",
  ];
  return parts.filter(Boolean).join(" · ");
}

/** What came out. */
export function outWords(entry: LogEntry): string {
  const { out } = entry;
  if (!out) return "Its frames were not looked through.";
  return out.findings.length ? `${out.answer} ${out.findings.join(" ")}` : out.answer;
}

/** What the gear used cost, as far as that was typed. */
export function costWords({ set }: LogEntry): string {
  if (set.gear_cost === null) return "—";
  const more = set.gear_cost_unknown;
  return `${set.gear_cost.toLocaleString("en-GB")}${more ? ` and ${more} of unknown cost` : ""}`;
}

/** What was planned against what was found, row by row, for entries beside each other. */
export function rowsOf(entry: LogEntry, units: Units): readonly (readonly [string, string])[] {
  const { set: was, done } = entry;
  return [
    ["size", was.magnification === null ? "—" : times(was.magnification)],
    ["stop", stop(was.f_number)],
    ["works as", was.works_as === null ? "—" : stop(was.works_as)],
    ["shutter", was.shutter_words || "—"],
    ["frames", `${done.frames_taken} of ${was.frames_planned + done.added}`],
    ["step", was.step_mm === null ? "—" : length(was.step_mm, units)],
    ["time", seconds(Math.round(done.time_s))],
    ["planned", seconds(Math.round(was.time_planned_s))],
    ["gear used", costWords(entry)],
    ["how good", entry.note.good ?? "—"],
    ["went wrong", entry.note.wrong.join(", ") || "—"],
  ];
}
