import type { Room } from "../../api/types";

/** Millimetres of the rig that are drawn behind its front. */
const OF_THE_RIG_MM = 60;
const AROUND_PX = 26;
/** For the words under the room between lens and subject. */
const UNDER_PX = 44;

export interface RoomView {
  /** px from the left of a place toward the lens, mm from the plane of focus: the camera stands at the left. */
  x: (towardLens: number) => number;
  /** px from the top of a place to the right of the camera, mm from the axis. */
  y: (right: number) => number;
  pxPerMm: number;
}

/** The room from above, to one scale both ways, all that stands in it inside. */
export function roomView(room: Room, width: number, height: number): RoomView {
  const edges = room.things.flatMap((thing) => [thing.one, thing.other]) as [number, number][];
  const along = [
    room.farthest_mm,
    room.nearest_mm,
    Math.max(room.front_mm, 0) + OF_THE_RIG_MM,
    ...edges.map(([x]) => x),
  ];
  const half = Math.max(room.frame_width_mm, room.front_width_mm) / 2;
  const across = [-half, half, ...edges.map(([, y]) => y)];
  const [low, high] = [Math.min(...along), Math.max(...along)];
  const [left, right] = [Math.min(...across), Math.max(...across)];
  const pxPerMm = Math.min(
    (width - 2 * AROUND_PX) / Math.max(high - low, 1),
    (height - AROUND_PX - UNDER_PX) / Math.max(right - left, 1),
  );
  const middle = (low + high) / 2;
  return {
    x: (towardLens) => width / 2 - (towardLens - middle) * pxPerMm,
    y: (place) => AROUND_PX + (height - AROUND_PX - UNDER_PX) / 2 + (place - (left + right) / 2) * pxPerMm,
    pxPerMm,
  };
}
