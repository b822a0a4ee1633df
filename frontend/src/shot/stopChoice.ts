/** Which stop a drag or an arrow key means: picking among the plan's numbers, not computing new ones. */
import type { Plan, Shot, StopAnswer } from "../api/types";

/** A stop as the camera shows it. */
export function reading(shot: Shot, stop: Pick<StopAnswer, "f_number" | "effective_f_number">): number {
  return shot.aperture.reading === "effective" ? stop.effective_f_number : stop.f_number;
}

/** The stop whose depth of field reaches nearest to a distance behind the focus, of those that still gain depth. */
export function stopReaching(plan: Plan, shot: Shot, reachMm: number): number {
  const stops = plan.aperture?.stops ?? [];
  const deepest = stops.reduce(
    (best, each, index) => (each.depth_of_field_mm > (stops[best]?.depth_of_field_mm ?? 0) ? index : best),
    0,
  );
  const gaining = stops.slice(0, deepest + 1).filter((each) => each.depth_of_field_mm > 0);
  const [first, ...others] = gaining;
  if (!first) return shot.aperture.f_number;
  const off = (each: StopAnswer) => Math.abs(each.depth_of_field_mm / 2 - reachMm);
  return reading(
    shot,
    others.reduce((near, each) => (off(each) < off(near) ? each : near), first),
  );
}

/** The stop so many clicks narrower (or wider, when negative), staying on the lens. */
export function stopBeside(plan: Plan, shot: Shot, clicks: number): number {
  const stops = [...(plan.aperture?.stops ?? [])].sort((a, b) => a.f_number - b.f_number);
  const now = stops.findIndex((each) => Math.abs(each.f_number - (plan.aperture?.f_number ?? 0)) < 1e-9);
  const next = stops[Math.min(Math.max(now + clicks, 0), stops.length - 1)];
  return next ? reading(shot, next) : shot.aperture.f_number;
}
