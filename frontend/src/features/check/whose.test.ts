import { expect, it } from "vitest";
import { whoseFrames } from "./whose";

const job = { asked_at: "2031-05-04T09:00:00.500+00:00", folder: "/frames/pod" };
const run = (started_at: string, folder: string | null = null) => ({ started_at, folder });

it.each([
  ["no check", undefined, run("2031-05-04T10:00:00+00:00"), "run"],
  ["no run", job, null, "run"],
  ["a run begun after it", job, run("2031-05-04T09:00:01.000+00:00"), "before"],
  [
    "a run into the same folder, begun after it",
    job,
    run("2031-05-04T09:00:01.000+00:00", job.folder),
    "before",
  ],
  ["a run begun before it", job, run("2031-05-04T08:59:59+00:00"), "run"],
  ["the clock of another zone", job, run("2031-05-04T11:00:00+03:00"), "run"],
  ["a run into the folder looked through", job, run("2031-05-04T08:00:00+00:00", job.folder), "run"],
  ["a run into another", job, run("2031-05-04T08:00:00+00:00", "/frames/tray"), "elsewhere"],
  ["a run by devices, before its folder is made", job, run("2031-05-04T08:00:00+00:00", ""), "run"],
])("%s: whose frames?", (_, checked, last, whose) => expect(whoseFrames(checked, last)).toBe(whose));
