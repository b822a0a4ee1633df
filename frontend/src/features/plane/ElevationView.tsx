import type { KeyboardEvent } from "react";
import { memo, useEffect, useMemo } from "react";
import styled from "styled-components";
import type { PlaneSection, PointAnswer } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { useSize } from "../../drawing/useSize";
import { niceStep } from "../../drawing/viewport";
import { length } from "../../units/format";
import { useBench } from "../../shot/ShotContext";
import { elevationOf, type AxisScale } from "./elevation";
import { Ground } from "./Ground";
import { deeper, planeOf, share, withPoint } from "../../shot/moves";
import { useHands } from "./hands";
import { PointMark } from "./PointMark";
import { usePointInHand } from "./usePointInHand";
import { atStopOf, blurIn } from "../../shot/tilted";

const Box = styled.div`
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  border: 1px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.surface};
  svg {
    position: absolute;
    inset: 0;
    touch-action: none;
  }
  text {
    font-size: 12px;
  }
`;

const BORDER_PX = 1;

interface ElevationViewProps {
  plane: PlaneSection;
  depth: number;
  /** Told of the scale along the axis, so that what stands under the drawing can keep to it. */
  onScale: (scale: AxisScale) => void;
}

/** The side elevation at the plane: points, plane, wedge and hinge, to one scale both ways. */
export const ElevationView = memo(function ElevationView({ plane, depth, onScale }: ElevationViewProps) {
  const { shot, plan, way, edit, point: selected, selectPoint } = useBench();
  const reach = plan?.reach;
  const { units } = usePreferences();
  const [box, size] = useSize<HTMLDivElement>();
  const fitting = useMemo(
    () => (size.width > 60 && size.height > 60 ? elevationOf(plane, depth, size.width, size.height) : null),
    [plane, depth, size.width, size.height],
  );
  const railCounts = planeOf(shot).rail_counts;
  const move = (point: PointAnswer, deep: number, across: number, passing: boolean) => {
    const turn = (plane.azimuth_deg * Math.PI) / 180;
    const perMm = point.frame_width_mm ? 1 / point.frame_width_mm : 0;
    const aspect = reach ? reach.sensor_width_mm / reach.sensor_height_mm : 1.5;
    edit(
      (draft) =>
        withPoint(draft, point.id, (each) => ({
          ...deeper(each, deep, railCounts),
          from_left: share(each.from_left + across * Math.cos(turn) * perMm),
          from_top: share(each.from_top - across * Math.sin(turn) * perMm * aspect),
        })),
      { passing },
    );
  };
  const { view, held, ...inHand } = usePointInHand(plane, fitting, move);
  const [atZero, pxPerMm] = view ? [view.x(0) + BORDER_PX, view.pxPerMm] : [0, 0];
  useEffect(() => {
    if (pxPerMm > 0) onScale({ atZero, pxPerMm });
  }, [atZero, pxPerMm, onScale]);
  const onKey = (point: PointAnswer, event: KeyboardEvent) => {
    if (!view) return;
    const step = niceStep(1 / view.pxPerMm) * (event.shiftKey ? 10 : 1);
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    const found = by[event.key];
    if (!found) return;
    event.preventDefault();
    move(point, ...found, false);
  };
  const hands = useHands({
    ...inHand,
    down: (point, event) => {
      selectPoint(point.id);
      inHand.down(point, event);
    },
    key: onKey,
    focus: (point) => selectPoint(point.id),
  });

  return (
    <Box ref={box}>
      {view ? (
        <svg width={view.width} height={view.height} role="group" aria-label={summary(plane, units)}>
          <Ground view={view} plane={plane} way={way} depth={depth} />
          {plane.points.map((point) =>
            point.behind_nearest_mm === null ? null : (
              <PointMark
                key={`${point.id}-${point.corner ?? ""}`}
                point={point}
                x={held?.id === point.id ? held.x : view.x(point.behind_nearest_mm)}
                y={held?.id === point.id ? held.y : view.y(point.across_mm ?? 0)}
                width={view.width}
                allowedUm={atStopOf(way, plane).allowed_blur_um}
                blurUm={blurIn(way, point, plane)}
                selected={point.id === selected}
                label={`${point.name}, ${length(point.behind_nearest_mm, units)} behind the nearest; arrows move it`}
                hands={hands}
              />
            ),
          )}
        </svg>
      ) : null}
    </Box>
  );
});

function summary(plane: PlaneSection, units: "mm" | "in"): string {
  const known = plane.points.filter((point) => point.behind_nearest_mm !== null).length;
  const angle = plane.angle_deg === null ? "" : `, plane ${plane.angle_deg.toFixed(0)}° from square`;
  const off = plane.largest_deviation_mm
    ? `, worst point ${length(plane.largest_deviation_mm, units)} off it`
    : "";
  return `Side view to scale: ${known} points${angle}${off}`;
}
