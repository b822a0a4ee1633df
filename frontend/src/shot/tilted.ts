import { stop } from "../units/format";
import type { PlaneSection, PointAnswer, WayAnswer } from "../api/types";

/** The blur of a point is known with the setting; without tilt the contours on the frame show it. */
export function blurIn(way: WayAnswer | null, point: PointAnswer, plane: PlaneSection): number | null {
  if (!plane.setting || !isTilted(way) || point.blur_um === null) return null;
  return point.blur_um * (way?.id === "tilt_best" ? (plane.covering?.blur_share ?? 1) : 1);
}

export function isTilted(way: WayAnswer | null): boolean {
  return way === null || way.id.startsWith("tilt");
}

/** The blur allowed and the faces of the wedge at the stop of the way looked at. */
export function atStopOf(way: WayAnswer | null, plane: PlaneSection) {
  return way?.id === "tilt_best" && plane.covering ? plane.covering : plane;
}

/** What is left to do before the picture, its stop being that of the way looked at. */
export function lastSteps(way: WayAnswer | null, plane: PlaneSection): string[] {
  return way?.frames === 1 && isTilted(way)
    ? [...plane.last_steps.slice(0, -1), `Set ${stop(way.f_number)}.`]
    : plane.last_steps;
}
