/** Where millimetres fall on the screen. One scale for both directions: the drawing is true. */
import { scaleLinear, type ScaleLinear } from "d3-scale";

declare const unit: unique symbol;
export type Mm = number & { readonly [unit]: "mm" };
export type Px = number & { readonly [unit]: "px" };
export const mm = (value: number) => value as Mm;
export const px = (value: number) => value as Px;

export interface Viewport {
  width: Px;
  height: Px;
  pxPerMm: number;
  /** Left and right end, mm behind the nearest point. */
  from: Mm;
  to: Mm;
  x: (place: number) => Px;
  /** Height above the axis to screen y: up is up. */
  y: (above: number) => Px;
  scale: ScaleLinear<number, number>;
}

export function makeViewport(width: number, height: number, centre: number, pxPerMm: number): Viewport {
  const half = width / 2 / pxPerMm;
  const scale = scaleLinear([centre - half, centre + half], [0, width]);
  return {
    width: px(width),
    height: px(height),
    pxPerMm,
    from: mm(centre - half),
    to: mm(centre + half),
    x: (place) => px(scale(place)),
    y: (above) => px(height / 2 - above * pxPerMm),
    scale,
  };
}

/** A viewport as wide that shares another drawing's scale along the axis: the pixel at 0, and pixels a mm. */
export function onScaleOf(view: Viewport, scale: { atZero: number; pxPerMm: number }): Viewport {
  return makeViewport(
    view.width,
    view.height,
    (view.width / 2 - scale.atZero) / scale.pxPerMm,
    scale.pxPerMm,
  );
}

/**
 * Scale at which the frame's height and the subject's depth both fit; `zoom` enlarges from there.
 * A way's sharp bands may reach outside: they are cut at the edge.
 */
export function fittingScale(
  width: number,
  height: number,
  frameHeight: number,
  depth: number,
  zoom: number,
): number {
  const byHeight = (height * 0.78) / Math.max(frameHeight, 1e-6);
  const byDepth = (width * 0.55) / Math.max(depth, 1e-6);
  return Math.min(byHeight, byDepth) * zoom;
}

export interface Tick {
  place: number;
  rank: "major" | "half" | "minor";
  label: string | null;
}

/** Ticks of the rule in the unit shown: majors at 1, 2 or 5 times a power of ten at least 56 px apart. */
export function ruleTicks(view: Viewport, mmPerUnit: number): Tick[] {
  const pxPerUnit = view.pxPerMm * mmPerUnit;
  const major = niceStep(56 / pxPerUnit);
  const parts = pxPerUnit * (major / 10) >= 4 ? 10 : 5;
  const minor = major / parts;
  const first = Math.ceil(view.from / mmPerUnit / minor);
  const last = Math.floor(view.to / mmPerUnit / minor);
  const decimals = Math.max(0, -Math.floor(Math.log10(major) + 1e-9));
  return Array.from({ length: Math.max(last - first + 1, 0) }, (_, index) => {
    const count = first + index;
    const rank = count % parts === 0 ? "major" : parts === 10 && count % 5 === 0 ? "half" : "minor";
    const label = rank === "major" ? (count === 0 ? "0" : (count * minor).toFixed(decimals)) : null;
    return { place: count * minor * mmPerUnit, rank, label };
  });
}

/** The smallest of 1, 2, 5 times a power of ten that is not below `least`. */
export function niceStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least));
  const step = [1, 2, 5, 10].find((factor) => factor * power >= least * (1 - 1e-9)) ?? 10;
  return step * power;
}
