import { memo, useMemo, useState } from "react";
import styled from "styled-components";
import { usePreferences } from "../../look/preferences";
import { Button } from "../../controls/Button";
import { useSteady } from "../../controls/useSteady";
import { Rule } from "../../drawing/Rule";
import { onScaleOf } from "../../drawing/viewport";
import { useSize } from "../../drawing/useSize";
import { StopMap } from "../aperture/StopMap";
import type { AxisScale } from "../plane/elevation";
import { PlaneViews } from "../plane/PlaneViews";
import { CheckArea } from "../check/CheckArea";
import { LogArea } from "../log/LogArea";
import { RoomDrawing } from "../light/RoomDrawing";
import { RunArea } from "../run/RunArea";
import { RigDrawing } from "../reach/RigDrawing";
import { Search } from "../reach/Search";
import { Handles } from "./Handles";
import { useBench } from "../../shot/ShotContext";
import { Stage } from "./Stage";
import type { StationId } from "../../shot/stations";
import type { Units } from "../../units/units";
import { useView, ZOOM_STEP } from "./useView";
import { wayColumns, Ways } from "./Ways";

const Area = styled.section`
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(150px, 1fr) auto auto;
  gap: 6px;
  padding: 10px 16px 8px 20px;
  min-height: 0;
  min-width: 0;
  overflow: auto;
`;

const ReachArea = styled(Area)`
  grid-template-rows: minmax(250px, 5fr) minmax(210px, 6fr);
`;

/** For the drawings that need height: the plane in its two views, the set from above. */
const TallArea = styled(Area)`
  grid-template-rows: minmax(330px, 1fr) auto minmax(96px, auto);
`;

const Drawing = styled.div`
  position: relative;
  min-height: 150px;
  min-width: 0;
  overflow: hidden;
`;

const Tools = styled.div`
  position: absolute;
  right: 4px; /* room for the ring around the one in focus */
  bottom: 4px;
  display: flex;
  gap: 4px;
  z-index: 2;
  button {
    min-width: 40px;
    padding: 0 10px;
    font-size: 13px;
    border-color: ${({ theme }) => theme.line};
    background: ${({ theme }) => theme.ground};
  }
`;

const Caption = styled.div`
  display: grid;
  ${wayColumns}
  padding-right: 10px;
  overflow: hidden;
  scrollbar-gutter: stable; /* as the ways under it, so that headings stand over their figures */
  text-align: right;
  font-size: 12px;
  color: ${({ theme }) => theme.soft};
  margin-bottom: 2px;
`;

const Nothing = styled.p`
  margin: 60px auto;
  max-width: 420px;
  color: ${({ theme }) => theme.soft};
  text-align: center;
`;

interface ScaleProps {
  zoomBy: (factor: number) => void;
  onFit: () => void;
  onFitDepth: () => void;
}

/** How large it is drawn. */
const Scale = memo(function Scale({ zoomBy, onFit, onFitDepth }: ScaleProps) {
  return (
    <Tools>
      <Button onPress={() => zoomBy(ZOOM_STEP)} aria-label="Draw larger">
        +
      </Button>
      <Button onPress={() => zoomBy(1 / ZOOM_STEP)} aria-label="Draw smaller">
        −
      </Button>
      <Button onPress={onFit}>Whole frame</Button>
      <Button onPress={onFitDepth}>Depth only</Button>
    </Tools>
  );
});

/** What the rule and the columns of the ways under it show. */
const Headings = memo(function Headings({ units, ofWays }: { units: Units; ofWays: boolean }) {
  return (
    <Caption>
      <span style={{ textAlign: "left" }}>{units} behind the nearest point that must be sharp</span>
      {ofWays ? (
        <>
          <span>covers</span>
          <span>frames</span>
          <span>time</span>
          <span>works as</span>
        </>
      ) : null}
    </Caption>
  );
});

/** The drawing, the rule under it, and the ways on the same scale. */
export function BenchArea({ station, shotId }: { station: StationId; shotId: string }) {
  const { drawn: shot, plan, way, lookAt, edit } = useBench();
  const { units } = usePreferences();
  const [drawing, size] = useSize<HTMLDivElement>();
  const [drag, setDrag] = useState<{ far: number } | null>(null);
  const fromPoints = plan?.depth_from_points ?? false;
  const depth = fromPoints && plan ? plan.depth_mm : shot.subject.depth_mm;
  const [planeScale, setPlaneScale] = useState<AxisScale | null>(null);
  const { view, zoomBy, fit, fitDepth, shiftOrigin } = useView(
    size.width,
    size.height,
    plan?.reach?.frame_height_mm ?? null,
    depth,
    drag !== null,
  );
  // At the plane the side view has its own scale; what stands under it keeps to that.
  const under = useMemo(
    () => (station === "plane" && view && planeScale ? onScaleOf(view, planeScale) : view),
    [station, view, planeScale],
  );
  const steadyFit = useSteady(fit);
  const steadyFitDepth = useSteady(fitDepth);
  // While the nearest point is dragged the far one stands still, so the plan's origin has moved by the difference.
  const shift = drag === null ? 0 : drag.far - depth;
  const uncovered = way?.stack?.gaps_mm;
  const gaps = useMemo(() => uncovered?.map((gap) => gap.map((place) => place + shift)), [uncovered, shift]);

  const onNear = (place: number, depthNow: number, done: boolean) => {
    const far = drag?.far ?? depthNow;
    const moved = Math.min(place, far);
    const last = drag === null ? 0 : drag.far - depthNow;
    edit(
      (draft) => ({
        ...draft,
        subject: { ...draft.subject, depth_mm: Number((far - moved).toPrecision(10)) },
        focus_behind_nearest_mm:
          draft.focus_behind_nearest_mm === null ? null : draft.focus_behind_nearest_mm - (moved - last),
      }),
      { passing: !done },
    );
    if (done) {
      shiftOrigin(moved);
      setDrag(null);
    } else setDrag({ far });
  };

  if (station === "check") return <CheckArea shotId={shotId} />;
  if (station === "log") return <LogArea shotId={shotId} />;
  if (station === "run") return <RunArea shotId={shotId} />;
  if (station === "reach") {
    return (
      <ReachArea>
        <RigDrawing />
        <Search />
      </ReachArea>
    );
  }
  const Frame = station === "plane" || station === "light" ? TallArea : Area;
  return (
    <Frame>
      <Drawing ref={drawing}>
        {plan?.reach && view ? (
          station === "plane" ? (
            <PlaneViews onScale={setPlaneScale} />
          ) : station === "light" && plan.room ? (
            <RoomDrawing />
          ) : station === "aperture" && plan.aperture ? (
            <StopMap view={view} />
          ) : (
            <>
              <Stage view={view} plan={plan} way={way} depth={depth} shift={shift} />
              <Handles
                view={view}
                shot={shot}
                plan={plan}
                depth={depth}
                shift={shift}
                onNear={onNear}
                edit={edit}
              />
              <Scale zoomBy={zoomBy} onFit={steadyFit} onFitDepth={steadyFitDepth} />
            </>
          )
        ) : plan ? (
          <Nothing>Nothing can be drawn yet: {plan.verdict.headline}</Nothing>
        ) : null}
      </Drawing>
      {view ? (
        <div>
          <Headings units={units} ofWays={station !== "aperture"} />
          <Rule view={under ?? view} units={units} from={shift} to={shift + depth} gaps={gaps} />
        </div>
      ) : null}
      {view && plan?.ways.length && station !== "aperture" ? (
        <Ways
          ways={plan.ways}
          view={under ?? view}
          shift={shift}
          selected={way?.id ?? null}
          chosen={shot.chosen_way ?? null}
          points={
            plan.plane?.points.filter((point) => point.wanted === "sharp" && point.behind_nearest_mm != null)
              .length ?? 0
          }
          onSelect={lookAt}
        />
      ) : null}
    </Frame>
  );
}
