import type { Shot } from "../../api/types";
import { planeOf, share, withPlane } from "../../shot/moves";

/**
 * The shot with the camera turned on its side, or back, where it stands: the size on the sensor stays, and the points
 * stay where they are in the subject. A point that the turned frame leaves out comes to its edge.
 *
 * `wide` is the frame's width by its height before the turn.
 */
export function turned(shot: Shot, onItsSide: boolean, wide: number): Shot {
  if (shot.camera_on_its_side === onItsSide || !(wide > 0)) return shot;
  const { framing } = shot;
  return {
    ...withPlane(shot, {
      points: planeOf(shot).points.map((point) => ({
        ...point,
        from_left: share(0.5 + (point.from_left - 0.5) * wide),
        from_top: share(0.5 + (point.from_top - 0.5) / wide),
      })),
    }),
    camera_on_its_side: onItsSide,
    framing:
      framing.by === "frame_width"
        ? { ...framing, frame_width_mm: Number((framing.frame_width_mm / wide).toPrecision(6)) }
        : framing,
  };
}
