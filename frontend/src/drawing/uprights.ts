import type { Viewport } from "./viewport";

/** One path of upright strokes at these places: hundreds of frames are one element, not hundreds. */
export function uprights(
  places: readonly number[],
  view: Viewport,
  shift: number,
  top: number,
  bottom: number,
): string {
  return places
    .map((place) => view.x(place + shift))
    .filter((x) => x >= 0 && x <= view.width)
    .map((x) => `M${x.toFixed(1)} ${top}V${bottom}`)
    .join("");
}
