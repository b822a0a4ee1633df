import { expect, it } from "vitest";
import type { WayAnswer } from "../../api/types";
import { handTicks } from "./handTicks";

const way = (series: number | null) =>
  ({ frames: 4, stack: { first_mm: 1.5, step_mm: 3, series } }) as unknown as WayAnswer;

it("says where to begin, how to lean, and how often", () => {
  expect(handTicks(way(3), "mm")).toEqual([
    "Stabiliser on; set the ring for the size and leave it alone.",
    "Sharp 1.5 mm behind the nearest point, hold the release down and lean in slowly: a frame every 3 mm, 4 of them.",
    "Do it 3 times, and merge them all together.",
  ]);
});

it("one series may do, and sometimes none of six does", () => {
  expect(handTicks(way(1), "mm")[2]).toContain("One series is enough");
  expect(handTicks(way(null), "mm")[2]).toContain("More than six");
  expect(handTicks({ stack: null } as unknown as WayAnswer, "mm")).toEqual([]);
});
