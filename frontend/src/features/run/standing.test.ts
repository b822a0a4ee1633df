import { expect, test } from "vitest";
import type { Run } from "../../api/types";
import { figureOf, goneSeconds, knobWords, lastTaken, sideWords, stairsOf, takenCount } from "./standing";

const step = (frame: number, focus_mm: number, mark_mm: number | null = null) => ({
  frame,
  focus_mm,
  move_mm: frame ? 1 : null,
  mark_mm,
  sharp_from_mm: focus_mm - 1,
  sharp_to_mm: focus_mm + 1,
  knob_divisions: frame * 40,
  from_mm: null,
  added: false,
});

const run = (times_taken: number[], marks = false): Run => ({
  run_id: "r",
  shot_id: "s",
  plan: {
    way: "rail",
    title: "Stack by rail",
    kind: "rail",
    steps: times_taken.map((_, frame) => step(frame, frame - 1, marks ? 38 + frame : null)),
    shutter_words: "1/8 s",
    f_number: 8,
    iso: 100,
    settle_s: 2,
    depth_mm: null,
    time_s: 60,
    hold_still_s: null,
    mark_grows: 1,
    shutter_s: 0.02,
    divisions: 50,
  },
  events: 0,
  state: "running",
  next_frame: 0,
  times_taken,
  skipped: [],
  folder: null,
  files: times_taken.map(() => null),
  started_at: "2026-05-03T10:00:00.000+00:00",
  last_at: "2026-05-03T10:01:30.500+00:00",
  shot_changed: false,
  devices: { rail: "hand", camera: "hand", faults: [], in_real_time: false, raw_too: false, seed: 1 },
  driven: false,
  set_frame: null,
  reading_mm: null,
  trouble: "",
  white: null,
  frames_left: null,
  battery: null,
});

const at = (of: Run, frame: number) => of.plan.steps[frame] ?? step(0, 0);

test("the figure is the rail's mark where it is known, and the move where not", () => {
  const marked = run([1, 1, 0, 0], true);
  expect(figureOf(marked, at(marked, 2), "mm")).toEqual({
    over: "set the rail to",
    figure: "40.00",
    under: "1 mm on from the last",
  });
  const plain = run([1, 1, 0, 0]);
  expect(figureOf(plain, at(plain, 2), "mm")).toMatchObject({ over: "move on by", figure: "1.00" });
  const fresh = run([0, 0]);
  expect(figureOf(fresh, at(fresh, 0), "mm").under).toBe("1 mm before the nearest point");
});

test("past a frame that was left out the move is from the last one taken", () => {
  const gone = run([1, 0, 0, 0], true);
  expect(figureOf(gone, at(gone, 2), "mm").under).toBe("2 mm on from the last");
});

test("a mark that lies behind is come to from the same side", () => {
  const gone = run([1, 1, 1, 0], true);
  expect(sideWords(gone, at(gone, 0))).toContain("Go back past it first");
  expect(sideWords(gone, at(gone, 3))).toContain("never back");
});

test("the knob is turned from the last frame taken, in its own turns and divisions", () => {
  const on = run([1, 1, 0, 0], true);
  expect(knobWords(on, at(on, 2))).toBe("Knob on by 40 divisions.");
  expect(knobWords(on, at(on, 3))).toBe("Knob on by 1 turn and 30 divisions.");
  expect(knobWords(on, at(on, 0))).toBe("Knob back by 40 divisions.");
  const fresh = run([0, 0], true);
  expect(knobWords(fresh, at(fresh, 0))).toBe("");
});

test("where the play is known it is said from which mark to come", () => {
  const fresh = run([0, 0], true);
  expect(sideWords(fresh, { ...at(fresh, 0), from_mm: 37.94 })).toContain("Go back to 37.94 first");
});

test("the staircase is filled as frames are taken and broken where they are left out", () => {
  const gone = { ...run([1, 0, 0]), skipped: [1] };
  expect(stairsOf(gone).rows.map((row) => row.look)).toEqual(["filled", "broken", "to come"]);
  expect([takenCount(gone), lastTaken(gone)]).toEqual([1, 0]);
  // Focused from 1 mm before the nearest point to 1 mm behind it; what must be sharp is as deep as the plan says.
  expect([stairsOf(gone).near, stairsOf(gone).far]).toEqual([0, 1]);
  const deep = { ...gone, plan: { ...gone.plan, depth_mm: 0.6 } };
  expect([stairsOf(deep).near, stairsOf(deep).far]).toEqual([0, 0.6]);
  expect(goneSeconds(gone)).toBe(90.5);
});
