import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by } from "../../controls/steps";
import { Fields, Wide } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";
import { planeOf, withPlane } from "../../shot/moves";

const WAYS = [
  { id: "toward", label: "toward the subject" },
  { id: "away", label: "away from it" },
] as const;

/** How the rail's marks are to be understood. */
export function RailCounts() {
  const { shot, edit, problemAt } = useBench();
  const plane = planeOf(shot);
  return (
    <Fields>
      <Wide>
        <Segments
          label="The rail's marks grow"
          value={plane.rail_counts ?? "toward"}
          options={WAYS}
          onChange={(rail_counts) => edit((draft) => withPlane(draft, { rail_counts }))}
        />
      </Wide>
      {plane.points?.some((point) => point.depth.by === "tape") ? (
        <Wide>
          <QuantityField
            label="Camera stood at, for the tape"
            kind="length"
            value={plane.rail_at_mm ?? null}
            step={by(0.1, 1, -100_000)}
            onChange={(rail_at_mm) => edit((draft) => withPlane(draft, { rail_at_mm }))}
            onEmpty={() => edit((draft) => withPlane(draft, { rail_at_mm: null }))}
            emptyHint="not known"
            problem={problemAt("/plane/rail_at_mm")}
          />
        </Wide>
      ) : null}
    </Fields>
  );
}
