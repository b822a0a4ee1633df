import { expect, it } from "vitest";
import { isOfBefore } from "./before";

const job = { asked_at: "2031-05-04T09:00:00.500+00:00" };

it.each([
  ["no check", undefined, { started_at: "2031-05-04T10:00:00+00:00" }, false],
  ["no run", job, null, false],
  ["a run begun after it", job, { started_at: "2031-05-04T09:00:01.000+00:00" }, true],
  ["a run begun before it", job, { started_at: "2031-05-04T08:59:59+00:00" }, false],
  ["the clock of another zone", job, { started_at: "2031-05-04T11:00:00+03:00" }, false],
])("%s: of before the run?", (_, checked, run, before) => expect(isOfBefore(checked, run)).toBe(before));
