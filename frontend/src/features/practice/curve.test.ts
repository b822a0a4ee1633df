import { expect, it } from "vitest";
import { daysOf } from "./curve";

const on = (day: number) => ({ at: `2026-05-${String(day).padStart(2, "0")}T12:00:00+00:00` });

it("tells each day at its first result", () => {
  const days = daysOf([on(1), on(1), on(1), on(1), on(1), on(1), on(3), on(3)], "en-GB");
  expect(days.map(({ first, words }) => [first, words])).toEqual([
    [0, "1 May"],
    [6, "3 May"],
  ]);
  expect(days.every(({ told }) => told)).toBe(true);
});

it("writes a date only where there is room for it", () => {
  const days = daysOf([on(1), on(2), on(3), on(4), on(5), on(6)], "en-GB");
  expect(days.map(({ told }) => told)).toEqual([true, false, false, false, false, true]);
});

it("has none without results", () => {
  expect(daysOf([])).toEqual([]);
});
