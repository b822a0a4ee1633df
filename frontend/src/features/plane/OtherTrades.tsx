import type { PlaneSection, Shot } from "../../api/types";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by } from "../../controls/steps";
import { Fields, Lead, Wide } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";
import { planeOf, withPlane } from "../../shot/moves";

const SIDES = [
  { id: "width", label: "width" },
  { id: "height", label: "height" },
] as const;

type Wanted = NonNullable<NonNullable<Shot["plane"]>["shift"]>;

/** Turning the camera square, shift that keeps parallels, and frames joined from shifts. */
export function OtherTrades({ plane }: { plane: PlaneSection | null }) {
  const { shot, edit, problemAt, cautionAt } = useBench();
  const wanted: Wanted = planeOf(shot).shift ?? {};
  const set = (change: Partial<Wanted>) =>
    edit((draft) => withPlane(draft, { shift: { ...planeOf(draft).shift, ...change } }));
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
        <QuantityField
          label="Subject lies right by"
          kind="length"
          value={wanted.right_mm ?? 0}
          step={by(1, 10, -10_000)}
          onChange={(right_mm) => set({ right_mm })}
          problem={problemAt("/plane/shift/right_mm")}
        />
        <QuantityField
          label="and up by"
          kind="length"
          value={wanted.up_mm ?? 0}
          step={by(1, 10, -10_000)}
          onChange={(up_mm) => set({ up_mm })}
          problem={problemAt("/plane/shift/up_mm")}
        />
      </Fields>
      <Lead>{plane?.shift?.words ?? cautionAt("/plane/shift") ?? "This lens does not shift."}</Lead>
      <Fields>
        <Wide>
          <Segments
            label="Frames joined along the frame's"
            value={wanted.joined_along ?? "width"}
            options={SIDES}
            onChange={(joined_along) => set({ joined_along })}
          />
        </Wide>
        <QuantityField
          label="to"
          kind="length"
          value={wanted.joined_mm ?? null}
          step={by(1, 10, 1)}
          onChange={(joined_mm) => set({ joined_mm })}
          onEmpty={() => set({ joined_mm: null })}
          emptyHint="no join"
          problem={problemAt("/plane/shift/joined_mm")}
        />
        <QuantityField
          label="in common at least"
          kind="percent"
          value={wanted.joined_overlap ?? 0.3}
          step={(value, direction, coarse) => Math.min(by(0.01, 0.1, 0.01)(value, direction, coarse), 0.9)}
          onChange={(joined_overlap) => set({ joined_overlap })}
          problem={problemAt("/plane/shift/joined_overlap")}
        />
      </Fields>
      {plane?.join ? <Lead>{plane.join.words}</Lead> : null}
    </>
  );
}
