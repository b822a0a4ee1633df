import { expect, it } from "vitest";
import type { FoundRig } from "../../api/types";
import { thumbScale } from "./thumbScale";

const found = (...lengths: number[]) =>
  lengths.map((subject_to_sensor_mm) => ({ subject_to_sensor_mm })) as unknown as FoundRig[];

it("one scale at which the longest rig of a like-sized list is whole", () => {
  const scale = thumbScale(found(300, 400, 350), 236);
  expect((400 + 32) * scale).toBeLessThanOrEqual(236 - 8 + 1e-9);
});

it("one rig out of all proportion is cut, so that the others stay large", () => {
  expect(thumbScale(found(300, 310, 320, 9000), 236)).toBeGreaterThan(thumbScale(found(9000), 236) * 10);
});

it("a small rig is not drawn larger than its row is high", () => {
  expect(thumbScale(found(60), 236) * 92).toBeLessThanOrEqual(38);
});

it("an empty list has a scale too", () => {
  expect(thumbScale([], 150)).toBeGreaterThan(0);
});
