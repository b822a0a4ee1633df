import type { BlurMap } from "../../api/types";

/** The map of a way; ways of several frames, and those that change the view, have none. */
export function mapOf(maps: readonly BlurMap[], way: string | null): BlurMap | undefined {
  const wanted = way === null || way === "tilt_rail" || way === "tilt_ring" ? "tilt" : way;
  return maps.find((map) => map.way === wanted);
}
