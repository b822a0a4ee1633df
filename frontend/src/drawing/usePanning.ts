import { useRef } from "react";
import { zoomedAt, type Size, type View } from "./tiles";

const STEP = 80;
const NEARER = Math.SQRT2;

/** Moving a view by pointer, by two fingers and by keys: handlers for the element that shows it. */
export function usePanning(view: View, box: Size, look: (view: View) => void) {
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const place = (event: React.PointerEvent) => {
    const frame = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - frame.left, y: event.clientY - frame.top };
  };
  return {
    onPointerDown: (event: React.PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      fingers.current.set(event.pointerId, place(event));
    },
    onPointerMove: (event: React.PointerEvent) => {
      const was = fingers.current.get(event.pointerId);
      if (!was) return;
      const now = place(event);
      const others = [...fingers.current].filter(([id]) => id !== event.pointerId).map(([, at]) => at);
      fingers.current.set(event.pointerId, now);
      const other = others[0];
      if (!other) {
        look({ ...view, x: view.x - (now.x - was.x) / view.scale, y: view.y - (now.y - was.y) / view.scale });
        return;
      }
      const span = (at: { x: number; y: number }) => Math.hypot(at.x - other.x, at.y - other.y);
      look(zoomedAt(view, box, other, span(now) / Math.max(span(was), 1)));
    },
    onPointerUp: (event: React.PointerEvent) => void fingers.current.delete(event.pointerId),
    onPointerCancel: (event: React.PointerEvent) => void fingers.current.delete(event.pointerId),
    onKeyDown: (event: React.KeyboardEvent) => {
      const next = pressed(event.key, view, box);
      if (!next) return;
      event.preventDefault();
      look(next);
    },
  };
}

/** Where a key leads. */
export function pressed(key: string, view: View, box: Size): View | null {
  const by = STEP / view.scale;
  const middle = { x: box.width / 2, y: box.height / 2 };
  const moves: Record<string, View> = {
    ArrowLeft: { ...view, x: view.x - by },
    ArrowRight: { ...view, x: view.x + by },
    ArrowUp: { ...view, y: view.y - by },
    ArrowDown: { ...view, y: view.y + by },
    "+": zoomedAt(view, box, middle, NEARER),
    "=": zoomedAt(view, box, middle, NEARER),
    "-": zoomedAt(view, box, middle, 1 / NEARER),
  };
  return moves[key] ?? null;
}
