import type { PlaneSection } from "../../api/types";
import { by } from "../../controls/steps";
import { Fields, Lead, Wide } from "../../controls/panel";
import { ShotQuantity, ShotSegments } from "../../shot/fields";
import { useBench } from "../../shot/ShotContext";

const SIDES = [
  { id: "width", label: "width" },
  { id: "height", label: "height" },
] as const;

/** Turning the camera square, shift that keeps parallels, and frames joined from shifts. */
export function OtherTrades({ plane }: { plane: PlaneSection | null }) {
  const { cautionAt } = useBench();
  return (
    <>
      {plane?.turn ? (
        <Lead>
          <strong>Turn the camera square: {plane.turn.angle_deg.toFixed(1)}°.</strong> {plane.turn.words}
        </Lead>
      ) : (
        <Lead>Turning square is worked out once a plane is laid through the points.</Lead>
      )}
      <Fields>
        <ShotQuantity at="/plane/shift/right_mm" step={by(1, 10, -10_000)} />
        <ShotQuantity at="/plane/shift/up_mm" label="and up by" step={by(1, 10, -10_000)} />
      </Fields>
      <Lead>{plane?.shift?.words ?? cautionAt("/plane/shift") ?? "This lens does not shift."}</Lead>
      <Fields>
        <Wide>
          <ShotSegments at="/plane/shift/joined_along" options={SIDES} />
        </Wide>
        <ShotQuantity at="/plane/shift/joined_mm" label="to" step={by(1, 10, 1)} emptyHint="no join" />
        <ShotQuantity
          at="/plane/shift/joined_overlap"
          label="in common at least"
          step={by(0.01, 0.1, 0.01)}
        />
      </Fields>
      {plane?.join ? <Lead>{plane.join.words}</Lead> : null}
    </>
  );
}
