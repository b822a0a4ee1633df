/** Points as they are placed, moved and read: changes to the shot's list, nothing worked out. */
import type { Point, Shot } from "../api/types";

export type Depth = Point["depth"];

/** A new point at a place, read as the last one was. */
export function newPoint(points: readonly Point[], fromLeft: number, fromTop: number): Point {
  const by = points.findLast((point) => point.depth.by !== "angle")?.depth.by === "tape" ? "tape" : "rail";
  return {
    id: freshId(points),
    name: "",
    wanted: "sharp",
    from_left: share(fromLeft),
    from_top: share(fromTop),
    depth: { by, readings_mm: [] },
  };
}

/** A flat part, in the middle of the frame. */
export function newFlatPart(points: readonly Point[]): Point {
  const id = freshId(points);
  return readBy({ ...newPoint(points, 0.5, 0.5), id, name: `flat part ${id.slice(1)}` }, "angle");
}

export function freshId(points: readonly Point[]): string {
  let number = points.length + 1;
  while (points.some((point) => point.id === `p${number}`)) number++;
  return `p${number}`;
}

export function share(value: number): number {
  return Number(Math.min(Math.max(value, 0), 1).toFixed(5));
}

/** The same point read in another way; readings that would mean something else are not taken along. */
export function readBy(point: Point, by: Depth["by"]): Point {
  if (by === point.depth.by) return point;
  const depth: Depth =
    by === "angle"
      ? { by, angle_deg: 30, recedes_deg: 90, length_mm: 50, width_mm: 50, readings_mm: [] }
      : { by, readings_mm: [] };
  return { ...point, depth };
}

/** Every reading of a point moved by so many mm away from the camera. */
export function deeper(point: Point, mm: number, railCounts: "toward" | "away"): Point {
  if (!point.depth.readings_mm.length) return point;
  const sign = point.depth.by !== "tape" && railCounts === "away" ? -1 : 1;
  const readings = point.depth.readings_mm.map((mark) => Number((mark + sign * mm).toFixed(4)));
  return { ...point, depth: { ...point.depth, readings_mm: readings } };
}

/** Readings typed in one field: `44.2 44.4, 44.3`. */
export function parseReadings(text: string): { readings: number[] } | { problem: string } {
  const parts = text
    .trim()
    .split(/[\s;]+|,(?=\s|$)/)
    .filter(Boolean);
  const readings = parts.map((part) => Number(part.replace(",", ".")));
  const bad = parts.find((_, index) => !Number.isFinite(readings[index]));
  if (bad !== undefined)
    return { problem: `“${bad}” is not a reading. Type mm, such as 44.2, one after another.` };
  if (readings.length > 20) return { problem: "Twenty readings of one point are enough." };
  return { readings };
}

type Plane = NonNullable<Shot["plane"]>;

export function planeOf(shot: Shot): Plane {
  return shot.plane;
}

/** The shot with its work at the plane changed. */
export function withPlane(shot: Shot, change: Partial<Plane>): Shot {
  return { ...shot, plane: { ...shot.plane, ...change } };
}

/** The shot with one point changed. */
export function withPoint(shot: Shot, id: string, change: (point: Point) => Point): Shot {
  const points = planeOf(shot).points;
  return withPlane(shot, { points: points.map((point) => (point.id === id ? change(point) : point)) });
}

/** The shot with one point put first: of the points it matters most. */
export function withPointFirst(shot: Shot, id: string): Shot {
  const points = planeOf(shot).points;
  return withPlane(shot, {
    points: [...points.filter((point) => point.id === id), ...points.filter((point) => point.id !== id)],
  });
}

const FLAT_ID = "flat";

/** The flat part that a shot is of, where it is of one. */
export function flatOf(shot: Shot) {
  const at = planeOf(shot).points.findIndex((point) => point.depth.by === "angle");
  const point = planeOf(shot).points[at];
  return point?.depth.by === "angle" ? { at, point, depth: point.depth } : null;
}

/** The shot of a flat thing that leans, as deep as it was said to be, in the middle of the frame. */
export function withFlat(shot: Shot): Shot {
  const angle_deg = 45;
  const long = Number((shot.subject.depth_mm / Math.sin((angle_deg * Math.PI) / 180)).toPrecision(4));
  const flat: Point = {
    id: FLAT_ID,
    name: shot.subject.what.slice(0, 60) || "the flat thing",
    wanted: "sharp",
    from_left: 0.5,
    from_top: 0.5,
    depth: {
      by: "angle",
      angle_deg,
      recedes_deg: 90,
      length_mm: long || 1,
      width_mm: long || 1,
      readings_mm: [],
    },
  };
  return withPlane(shot, { points: [...planeOf(shot).points, flat] });
}
