import { expect, it } from "vitest";
import type { Run } from "../../api/types";
import { soundOf } from "./sounds";

const run = (change: Partial<Run>) =>
  ({ run_id: "r", times_taken: [0, 0], state: "running", trouble: "", ...change }) as Run;

it("a frame, the last one, and trouble are heard, each by its own", () => {
  expect(soundOf(run({}), run({ times_taken: [1, 0] }))).toBe("taken");
  expect(soundOf(run({ times_taken: [1, 0] }), run({ times_taken: [1, 1], state: "finished" }))).toBe("over");
  expect(soundOf(run({}), run({ trouble: "The rail does not answer." }))).toBe("trouble");
  expect(soundOf(run({ times_taken: [1, 0] }), run({ times_taken: [2, 0] }))).toBe("taken");
});

it("what was there already, and another run, are not heard", () => {
  expect(soundOf(null, run({ times_taken: [1, 0] }))).toBeNull();
  expect(soundOf(run({ run_id: "other" }), run({ times_taken: [1, 0] }))).toBeNull();
  expect(soundOf(run({ trouble: "t" }), run({ trouble: "t" }))).toBeNull();
  expect(soundOf(run({}), run({ state: "paused" }))).toBeNull();
});
