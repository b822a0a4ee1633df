import type { PlaneSection, PointAnswer, WayAnswer } from "../../api/types";

/** The blur of a point is known with the setting; without tilt the contours on the frame show it. */
export function blurIn(way: WayAnswer | null, point: PointAnswer, plane: PlaneSection): number | null {
  if (!plane.setting || !isTilted(way)) return null;
  return point.blur_um ?? null;
}

export function isTilted(way: WayAnswer | null): boolean {
  return way === null || way.id.startsWith("tilt");
}
