import type { FoundRig } from "../../api/types";

/** Of a thumbnail, px. */
export const HEIGHT = 40;
/** Room for the body behind the sensor, mm. */
export const BEHIND_MM = 32;

/** One scale for all thumbnails: the longer half of them fill it, the longest are cut with a break. */
export function thumbScale(results: readonly FoundRig[], width: number): number {
  const lengths = results.map((each) => each.subject_to_sensor_mm).sort((a, b) => a - b);
  const middle = lengths[Math.floor(lengths.length / 2)] ?? 300;
  const longest = Math.min(lengths.at(-1) ?? 300, middle * 1.6);
  return Math.min((width - 8) / (longest + BEHIND_MM), (HEIGHT - 2) / 92);
}
