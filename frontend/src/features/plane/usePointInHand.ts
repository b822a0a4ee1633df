import { useEffect, useMemo, useRef, useState, type PointerEvent } from "react";
import type { PlaneSection, PointAnswer } from "../../api/types";
import { heldStill, movedBehind, type Elevation } from "./elevation";

/** A point in the hand: where its mark is, and the drawing, with the other points, as it was when it was taken. */
interface Held {
  id: string;
  x: number;
  y: number;
  view: Elevation;
  beside: PointAnswer[];
  released: boolean;
}

/** The longest that a mark waits where it was let go for an answer that puts it there. */
const ANSWERED_MS = 600;

/**
 * A point of the side view that is taken hold of, moved and let go. Its mark moves with the hand; the answer follows,
 * and what comes after the release takes its place. Till then the drawing keeps its scale, and all else its place.
 *
 * `onMoved` is given how far, in mm away from the camera and upward, and whether the hand still holds it.
 */
export function usePointInHand(
  plane: PlaneSection,
  fitting: Elevation | null,
  onMoved: (point: PointAnswer, deepMm: number, acrossMm: number, passing: boolean) => void,
) {
  const drag = useRef<{ id: string; x: number; y: number } | null>(null);
  const [taken, setHeld] = useState<Held | null>(null);
  // Gone meanwhile, by another window or by undo: nothing is held.
  const held = taken && plane.points.some((each) => each.id === taken.id) ? taken : null;
  const drawn = held?.view ?? fitting;
  const by = held ? movedBehind(held.beside, plane.points) : 0;
  const view = useMemo(() => drawn && heldStill(drawn, by), [drawn, by]);
  useEffect(() => {
    if (drag.current === null) setHeld(null);
  }, [plane]);
  const released = held?.released ?? false;
  useEffect(() => {
    if (!released) return;
    const timer = setTimeout(() => setHeld(null), ANSWERED_MS);
    return () => clearTimeout(timer);
  }, [released]);

  const down = (point: PointAnswer, event: PointerEvent<SVGGElement>) => {
    if (!view) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { id: point.id, x: event.clientX, y: event.clientY };
    setHeld({
      id: point.id,
      x: view.x(point.behind_nearest_mm ?? 0),
      y: view.y(point.across_mm ?? 0),
      view,
      beside: plane.points.filter((each) => each.id !== point.id),
      released: false,
    });
  };
  const follow = (point: PointAnswer, event: PointerEvent, done: boolean) => {
    const from = drag.current;
    if (!view || from?.id !== point.id) return;
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    if (dx || dy || done) onMoved(point, view.mm(dx), -view.mm(dy), !done);
    setHeld((mark) => mark && { ...mark, x: mark.x + dx, y: mark.y + dy, released: done });
    drag.current = done ? null : { ...from, x: event.clientX, y: event.clientY };
  };
  const cancel = (point: PointAnswer) => {
    if (drag.current?.id !== point.id) return;
    drag.current = null;
    setHeld(null);
    onMoved(point, 0, 0, false);
  };
  return {
    view,
    held,
    down,
    cancel,
    move: (point: PointAnswer, event: PointerEvent) => follow(point, event, false),
    up: (point: PointAnswer, event: PointerEvent) => follow(point, event, true),
  };
}
