import { by } from "../../controls/steps";
import { Fields, Wide } from "../../controls/panel";
import { ShotQuantity, ShotSegments } from "../../shot/fields";
import { useBench } from "../../shot/ShotContext";

const WAYS = [
  { id: "toward", label: "toward the subject" },
  { id: "away", label: "away from it" },
] as const;

/** How the rail's marks are to be understood. */
export function RailCounts() {
  const { shot } = useBench();
  return (
    <Fields>
      <Wide>
        <ShotSegments at="/plane/rail_counts" options={WAYS} />
      </Wide>
      {shot.plane.points.some((point) => point.depth.by === "tape") ? (
        <Wide>
          <ShotQuantity at="/plane/rail_at_mm" step={by(0.1, 1, -100_000)} emptyHint="not known" />
        </Wide>
      ) : null}
    </Fields>
  );
}
