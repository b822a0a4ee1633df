import { memo, useState } from "react";
import styled from "styled-components";
import { mostOf } from "../../api/fields";
import { usePreferences } from "../../look/preferences";
import { Button } from "../../controls/Button";
import { length } from "../../units/format";
import { useBench } from "../../shot/ShotContext";
import { useBlurMaps } from "./useBlurMaps";
import { mapOf } from "./contours";
import { ElevationView } from "./ElevationView";
import { atStopOf, isTilted } from "../../shot/tilted";
import type { AxisScale } from "./elevation";
import { FrameView } from "./FrameView";
import { newPoint, planeOf, withPlane } from "../../shot/moves";
import { Photograph } from "./Photograph";

const Pair = styled.div`
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  grid-template-rows: minmax(180px, 1fr) auto;
  gap: 4px 16px;
`;

const Under = styled.div`
  grid-column: 1 / -1;
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
  min-height: 40px;
  p {
    flex: 1 1 320px;
    min-width: 0;
    line-height: 1.3;
  }
  font-size: 12.5px;
  color: ${({ theme }) => theme.soft};
`;

/** Two views of one set of points: from the side, turned so that the tilt is seen true, and as the camera sees them. */
export function PlaneViews({ onScale }: { onScale: (scale: AxisScale) => void }) {
  const { shot, drawn, plan, way, edit, selectPoint } = useBench();
  const maps = useBlurMaps(drawn);
  const { units } = usePreferences();
  const [wanted, setPlacing] = useState(false);
  const mayPlace = planeOf(shot).points.length < mostOf("/plane/points");
  const placing = wanted && mayPlace;
  const plane = plan?.plane;
  if (!plan || !plane) return null;
  const place = (fromLeft: number, fromTop: number) => {
    const points = planeOf(shot).points;
    const point = newPoint(points, fromLeft, fromTop);
    edit((draft) => withPlane(draft, { points: [...planeOf(draft).points, point] }));
    selectPoint(point.id);
  };
  return (
    <Pair>
      <ElevationView plane={plane} depth={plan.depth_mm} onScale={onScale} />
      <FrameView plane={plane} maps={maps} placing={placing} onPlace={place} />
      <Beneath
        side={sideWords(plane.azimuth_deg)}
        ring={
          plane.setting && isTilted(way) && plane.points.length
            ? length(atStopOf(way, plane).allowed_blur_um / 1000, units)
            : null
        }
        hasMap={mapOf(maps, way?.id ?? null) !== undefined}
        placing={placing}
        mayPlace={mayPlace}
        onPlacing={setPlacing}
      />
    </Pair>
  );
}

interface BeneathProps {
  side: string;
  /** The blur allowed, which the rings show; null: there are none. */
  ring: string | null;
  hasMap: boolean;
  placing: boolean;
  mayPlace: boolean;
  onPlacing: (placing: boolean) => void;
}

/** What the two views show, in words, and what may be put into them. */
const Beneath = memo(function Beneath({ side, ring, hasMap, placing, mayPlace, onPlacing }: BeneathProps) {
  return (
    <Under>
      <p>
        {side}
        {ring ? ` Ring: the ${ring} that may blur; disc: what does.` : ""}
        {hasMap
          ? " Bold: in focus; thin: the blur allowed; dashed: three times that. Between points it is a guess."
          : ""}
      </p>
      <Photograph />
      {/* Last, so that it stays where it is while a photograph is read and the buttons before it change. */}
      <Button
        data-weight={placing ? "main" : undefined}
        aria-pressed={placing}
        isDisabled={!mayPlace}
        onPress={() => onPlacing(!placing)}
      >
        {placing ? "Done placing" : "Place points"}
      </Button>
    </Under>
  );
});

function sideWords(azimuth: number): string {
  const off = (((azimuth - 90) % 360) + 360) % 360;
  const turned = Math.min(off, 360 - off);
  if (turned < 1.5) return "From the side: up is up, the camera to the left.";
  return `From the side, turned ${turned.toFixed(0)}° about the axis so that the tilt is seen true.`;
}
