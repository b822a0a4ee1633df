import { expect, it } from "vitest";
import type { Plan, Run, Shot, WayAnswer } from "../../api/types";
import { STATIONS, stationOf } from "../../shot/stations";
import { tapeAnswers } from "./tapeAnswers";
import type { Whose } from "../check/whose";

const shot = {
  subject: { depth_mm: 34, hold_still_s: 90 },
  aperture: { f_number: 5.6, reading: "marked" },
} as Shot;

const trouble = (field: string) =>
  ({
    findings: [{ severity: "trouble", code: "x", field, message: "No." }],
    ways: [],
    verdict: { headline: "No.", detail: "", way: null },
  }) as unknown as Plan;

it("every station answers", () => {
  const answers = tapeAnswers(shot, null, null, [], "mm");
  for (const station of STATIONS) expect(answers[station.id].answer).not.toBe("");
  expect(answers.log.small).toBe("no runs yet");
  expect(answers.subject).toEqual({ answer: "34 mm deep", small: "holds 1 min 30 s", trouble: false });
});

it("a station in trouble says so in words", () => {
  const answers = tapeAnswers(shot, trouble("/framing/magnification"), null, [], "mm");
  expect(answers.reach.small).toBe("needs attention");
  expect(answers.aperture.trouble).toBe(false);
});

it("a refused field troubles its station before any plan", () => {
  expect(tapeAnswers(shot, null, null, ["/light/iso"], "mm").light.trouble).toBe(true);
});

it.each([
  ["holds all", 1, 19, "not needed"],
  ["holds a part, and a stack could be", 0.6, 19, "not this way"],
  ["holds a part, and no stack can be", 0.1, 0, "none can be"],
])("one frame that %s says what a stack is", (_, cover, count, words) => {
  const way = { id: "one", kind: "one_frame", frames: 1, time_s: 2, cover } as WayAnswer;
  const rail = { id: "rail", kind: "rail", frames: count } as WayAnswer;
  const plan = { findings: [], ways: [way, rail], verdict: { way: "one" } } as unknown as Plan;
  expect(tapeAnswers(shot, plan, way, [], "mm").stack.answer).toBe(words);
});

it("a way at another stop than the one set says so, its shutter with it", () => {
  const plan = {
    findings: [],
    ways: [],
    aperture: { f_number: 8, effective_f_number: 10 },
    light: { shutter_words: "1/60 s", read: true, stops_lost: 0.9 },
    verdict: { headline: "", detail: "", way: "one_best" },
  } as unknown as Plan;
  const way = {
    id: "one_best",
    kind: "one_frame",
    frames: 1,
    time_s: 2,
    f_number: 18,
    steady: { shutter_s: 0.0843 },
  };
  const answers = tapeAnswers(shot, plan, way as WayAnswer, [], "mm");
  expect(answers.aperture.small).toBe("this way at f/18");
  expect([answers.light.answer, answers.light.small]).toEqual(["1/13 s", "at f/18"]);
});

it.each([
  ["/on_set/0/gear", "light"],
  ["/rig/1/gear", "reach"],
  ["/focus_behind_nearest_mm", "aperture"],
  ["/stack/overlap", "stack"],
  ["/elsewhere", null],
])("%s belongs to %s", (field, station) => expect(stationOf(field)).toBe(station));

it("a look at frames taken before a run says nothing of the run's", () => {
  const report = { gaps: [], verdict: { may_come_down: true, answer: "", action: "" } };
  const run = (taken: number) => ({ times_taken: [taken, 0], state: "running" }) as Run;
  const said = (whose: Whose, taken = 0) =>
    tapeAnswers(shot, null, null, [], "mm", { state: "done", report, whose }, run(taken)).check;
  expect(said("run")).toEqual({ answer: "all there", small: "may come down", trouble: false });
  expect(said("elsewhere")).toEqual({ answer: "all there", small: "in another folder", trouble: false });
  expect(said("before")).toEqual({ answer: "—", small: "no frames yet", trouble: false });
  expect(said("before", 1)).toEqual({ answer: "—", small: "not looked at yet", trouble: false });
  expect(tapeAnswers(shot, null, null, [], "mm", null, run(1)).check.small).toBe("not looked at yet");
});
