/** Where things fall in the side elevation, which is turned to where the plane recedes. One scale both ways. */
import type { PlaneLine, PlaneSection, PointAnswer } from "../../api/types";

export interface Elevation {
  width: number;
  height: number;
  pxPerMm: number;
  x: (behindNearest: number) => number;
  y: (across: number) => number;
  /** And back: mm for a move of so many pixels. */
  mm: (pixels: number) => number;
  from: number;
  to: number;
  low: number;
  high: number;
}

/** The scale along the axis: the pixel at the nearest point, counted from the left of the drawing, and pixels a mm. */
export interface AxisScale {
  atZero: number;
  pxPerMm: number;
}

const MARGIN = 0.12;
const PAST_EDGES = 1.5;

export function elevationOf(plane: PlaneSection, depth: number, width: number, height: number): Elevation {
  const placed = plane.points.filter((point) => known(point.behind_nearest_mm) && known(point.across_mm));
  const asked = placed.filter((point) => point.wanted === "sharp");
  const behind = (asked.length ? asked : placed).map((point) => point.behind_nearest_mm as number);
  const near = Math.min(0, ...behind);
  const far = Math.max(depth, ...behind, near + 1e-6);
  const half = Math.max(plane.half_field_mm, ...asked.map((point) => Math.abs(point.across_mm as number)));
  const deep = Math.max(far - near, half * 0.4);
  const pxPerMm = Math.min((width * (1 - 2 * MARGIN)) / deep, (height * (1 - 1.2 * MARGIN)) / (2 * half));
  const centre = (near + far) / 2;
  const spanX = width / pxPerMm;
  const spanY = height / pxPerMm;
  return {
    width,
    height,
    pxPerMm,
    x: (place) => width / 2 + (place - centre) * pxPerMm,
    y: (across) => height / 2 - across * pxPerMm,
    mm: (pixels) => pixels / pxPerMm,
    from: centre - spanX / 2,
    to: centre + spanX / 2,
    low: -spanY / 2,
    high: spanY / 2,
  };
}

/**
 * The same drawing while a point in it is held: nothing else moves. Places count from the nearest point; where that is
 * the one held, everything else has come to lie `byMm` farther behind it.
 */
export function heldStill(view: Elevation, byMm: number): Elevation {
  return {
    ...view,
    x: (place) => view.x(place - byMm),
    from: view.from + byMm,
    to: view.to + byMm,
    // Words beneath may take a line less meanwhile, and the drawing be taller by it: lines run on past its edges.
    low: view.low * PAST_EDGES,
    high: view.high * PAST_EDGES,
  };
}

/** How much farther behind the nearest point others lie than they did, mm: by as much as the nearest point has moved. */
export function movedBehind(then: readonly PointAnswer[], now: readonly PointAnswer[]): number {
  for (const before of then) {
    const after = now.find((each) => each.id === before.id && each.corner === before.corner);
    if (after && known(after.behind_nearest_mm) && known(before.behind_nearest_mm)) {
      return after.behind_nearest_mm - before.behind_nearest_mm;
    }
  }
  return 0;
}

function known(value: number | null | undefined): value is number {
  return value !== null && value !== undefined;
}

/** A plane as a line from the bottom of the drawing to its top. */
export function lineEnds(view: Elevation, line: PlaneLine): [number, number, number, number] {
  const at = (across: number) => view.x(line.at_axis_mm + line.slope * across);
  return [at(view.low), view.y(view.low), at(view.high), view.y(view.high)];
}

/** The wedge between two planes, as the points of a polygon; an endless far face runs to the right edge. */
export function wedge(view: Elevation, near: PlaneLine, far: PlaneLine | null | undefined): string {
  const [nx1, y1, nx2, y2] = lineEnds(view, near);
  const edge = view.width + 10;
  const [fx1, , fx2] = far ? lineEnds(view, far) : [edge, 0, edge, 0];
  return [
    [nx1, y1],
    [nx2, y2],
    [fx2, y2],
    [fx1, y1],
  ]
    .map(([x, y]) => `${(x as number).toFixed(1)},${(y as number).toFixed(1)}`)
    .join(" ");
}

/** Where the hinge lies: a place in the drawing, or outside it the edge toward it with its angle in degrees. */
export function hingePlace(view: Elevation, behind: number, across: number) {
  const [x, y] = [view.x(behind), view.y(across)];
  const inside = x >= 0 && x <= view.width && y >= 0 && y <= view.height;
  if (inside) return { inside, x, y, angle: 0 };
  const [cx, cy] = [view.width / 2, view.height / 2];
  const [dx, dy] = [x - cx, y - cy];
  const room = 18;
  const share = Math.min(
    (cx - room) / Math.max(Math.abs(dx), 1e-9),
    (cy - room) / Math.max(Math.abs(dy), 1e-9),
  );
  return {
    inside,
    x: cx + dx * share,
    y: cy + dy * share,
    angle: (Math.atan2(dy, dx) * 180) / Math.PI,
  };
}
