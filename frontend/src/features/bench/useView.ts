/** What part of the axis is in sight, and at what scale. It moves only when asked, or when the subject leaves it. */
import { useCallback, useMemo, useState } from "react";
import { fittingScale, makeViewport, type Viewport } from "../../drawing/viewport";

interface Fit {
  centre: number;
  pxPerMm: number;
  frameHeight: number;
  width: number;
  height: number;
}

export interface View {
  view: Viewport | null;
  zoomBy: (factor: number) => void;
  fit: () => void;
  fitDepth: () => void;
  /** After the nearest point was dragged by `mm`: keep everything where it is on the screen. */
  shiftOrigin: (mm: number) => void;
}

const STEP = 1.25;
export const ZOOM_STEP = STEP;

export function useView(
  width: number,
  height: number,
  frameHeight: number | null,
  depth: number,
  held: boolean,
): View {
  const [fitted, setFitted] = useState<Fit | null>(null);

  const fitting = useCallback((): Fit | null => {
    if (frameHeight === null || width < 50 || height < 50) return null;
    return {
      centre: depth / 2,
      pxPerMm: fittingScale(width, height, frameHeight, depth, 1),
      frameHeight,
      width,
      height,
    };
  }, [width, height, frameHeight, depth]);

  let current = fitted;
  if (!held && frameHeight !== null && width >= 50 && height >= 50) {
    const changed =
      fitted === null ||
      fitted.width !== width ||
      fitted.height !== height ||
      Math.abs(fitted.frameHeight / frameHeight - 1) > 1e-6 ||
      leavesSight(fitted, depth);
    if (changed) {
      current = fitting();
      setFitted(current);
    }
  }

  const view = useMemo(
    () =>
      current === null || width < 50 || height < 50
        ? null
        : makeViewport(width, height, current.centre, current.pxPerMm),
    [current, width, height],
  );
  const zoomBy = useCallback(
    (factor: number) => setFitted((last) => last && { ...last, pxPerMm: last.pxPerMm * factor }),
    [],
  );
  const fit = useCallback(() => setFitted(fitting()), [fitting]);
  const fitDepth = useCallback(
    () =>
      setFitted(
        (last) => last && { ...last, centre: depth / 2, pxPerMm: (width * 0.6) / Math.max(depth, 1e-4) },
      ),
    [depth, width],
  );
  const shiftOrigin = useCallback(
    (by: number) => setFitted((last) => last && { ...last, centre: last.centre - by }),
    [],
  );
  return { view, zoomBy, fit, fitDepth, shiftOrigin };
}

function leavesSight(fit: Fit, depth: number): boolean {
  const half = fit.width / 2 / fit.pxPerMm;
  return depth > fit.centre + half || fit.centre - half > 0;
}
