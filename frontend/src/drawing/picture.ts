/** Places on a picture: between the pixels of the photograph and those of the screen. No optics here. */
export interface Point {
  /** Pixels of the photograph, the right way up. */
  x: number;
  y: number;
}

/** Scale and corner at which a picture fits a box, whole. */
export function fitted(pictureWidth: number, pictureHeight: number, boxWidth: number, boxHeight: number) {
  const scale = Math.min(boxWidth / pictureWidth, boxHeight / pictureHeight);
  return { scale, left: (boxWidth - pictureWidth * scale) / 2, top: (boxHeight - pictureHeight * scale) / 2 };
}

export function between(points: readonly Point[]): number | null {
  const [a, b] = points;
  if (!a || !b) return null;
  const span = Math.hypot(a.x - b.x, a.y - b.y);
  return span > 0 ? span : null;
}

/** The two points with one more: a third takes the place of the nearer one. */
export function placed(points: readonly Point[], next: Point): Point[] {
  const [a, b] = points;
  if (!a || !b) return [...points, next];
  const off = (point: Point) => Math.hypot(point.x - next.x, point.y - next.y);
  return off(a) < off(b) ? [next, b] : [a, next];
}

/** A point moved, staying on the picture. */
export function nudged(point: Point, dx: number, dy: number, width: number, height: number): Point {
  return { x: Math.min(Math.max(point.x + dx, 0), width), y: Math.min(Math.max(point.y + dy, 0), height) };
}
