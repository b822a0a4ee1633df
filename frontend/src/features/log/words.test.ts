import { expect, it } from "vitest";
import type { LogEntry } from "../../api/types";
import { doneWords, outWords, setWords } from "./words";

const entry = (more: { done?: Partial<LogEntry["done"]>; out?: LogEntry["out"] } = {}): LogEntry => ({
  entry_id: "e",
  shot_id: "s",
  run_id: null,
  set: {
    shot_name: "Pod",
    subject: "pod",
    rig: ["100 mm macro", "body"],
    magnification: 0.8,
    f_number: 5.6,
    works_as: 10.1,
    shutter_words: "1/8 s",
    iso: 100,
    way: "Stack by rail",
    kind: "rail",
    depth_mm: 20,
    step_mm: 0.5,
    frames_planned: 12,
    gear_cost: null,
    gear_cost_unknown: 3,
    time_planned_s: 90,
  },
  done: {
    state: "finished",
    frames_taken: 12,
    taken_again: 0,
    left_out: 0,
    added: 0,
    time_s: 130,
    folder: null,
    first_file: null,
    ...more.done,
  },
  out: more.out ?? null,
  note: { good: null, wrong: [], next_time: "" },
  note_number: 0,
  made_at: "2026-05-03T10:00:00.000+00:00",
});

it("says what was set in one line, in the units that are on", () => {
  expect(setWords(entry(), "mm")).toContain(
    "0.8× · f/5.6, works as f/10.1 · 1/8 s · ISO 100 · 12 frames, step 0.5 mm",
  );
  expect(setWords(entry(), "in")).toContain("in");
});

it("tells a run that went as planned from one that did not", () => {
  expect(doneWords(entry())).toBe("12 frames taken · 2 min 10 s, planned 1 min 30 s");
  const short = doneWords(entry({ done: { frames_taken: 9, left_out: 3, added: 2, state: "stopped" } }));
  expect(short).toContain("9 of 14 frames taken · 3 left out · 2 added");
  expect(short).toContain("stopped");
});

it("does not call frames good that nobody looked through", () => {
  expect(outWords(entry())).toBe("Its frames were not looked through.");
});
