import { expect, test } from "vitest";
import type { CheckReport, Run } from "../../api/types";
import { missing } from "./missing";

const report = (focuses_mm: number[], files: string[]) =>
  ({ gaps: [{ focuses_mm }], frames: files.map((file) => ({ file })) }) as unknown as CheckReport;

const run = (steps: [focus_mm: number, file: string | null, times: number][], skipped: number[] = []) =>
  ({
    plan: { steps: steps.map(([focus_mm], index) => ({ focus_mm, added: index >= PLANNED })) },
    files: steps.map(([, file]) => file),
    times_taken: steps.map(([, , times]) => times),
    skipped,
  }) as unknown as Run;

/** Frames from here on were added to the run. */
const PLANNED = 3;
const LOOKED = ["a.jpg", "b.jpg", "c.jpg"];
const TAKEN: [number, string | null, number][] = [
  [0, "a.jpg", 1],
  [1, "b.jpg", 1],
  [3, "c.jpg", 1],
];

test("what the run has no frame for is asked for", () => {
  expect(missing(report([2, 1], LOOKED), run(TAKEN))).toEqual({ toAsk: [2, 1], toCome: 0, came: 0 });
});

test("what was added to the run is not asked for again, and is looked at when it came", () => {
  const added = run([...TAKEN, [2, null, 0], [1, null, 0]]);
  expect(missing(report([2, 1], LOOKED), added)).toEqual({ toAsk: [], toCome: 2, came: 0 });
  const half = run([...TAKEN, [2.004, "d.jpg", 1], [1, null, 0]]);
  expect(missing(report([2, 1], LOOKED), half)).toEqual({ toAsk: [], toCome: 1, came: 1 });
});

test("a frame that was left out, that stands elsewhere or that was looked at already does not count", () => {
  const left = run([...TAKEN, [2, null, 0]], [3]);
  expect(missing(report([2], LOOKED), left).toAsk).toEqual([2]);
  expect(missing(report([2], LOOKED), run([...TAKEN, [2.02, null, 0]])).toAsk).toEqual([2]);
  expect(missing(report([2], [...LOOKED, "d.jpg"]), run([...TAKEN, [2, "d.jpg", 1]])).toAsk).toEqual([2]);
});

test("a frame of the plan that was never taken is asked for", () => {
  const stopped = run([
    [0, "a.jpg", 1],
    [1, "b.jpg", 1],
    [2, null, 0],
  ]);
  expect(missing(report([2], ["a.jpg", "b.jpg"]), stopped).toAsk).toEqual([2]);
});

test("frames counted by hand came when there are more than were looked at", () => {
  const byHand = run([
    [0, null, 1],
    [1, null, 1],
    [2, null, 1],
  ]);
  expect(missing(report([2], ["a.jpg", "b.jpg"]), byHand).came).toBe(1);
  expect(missing(report([2], LOOKED), byHand).toAsk).toEqual([2]);
});
