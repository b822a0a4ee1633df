import type { PlaneSection, Shot } from "../../api/types";
import { Button } from "../../controls/Button";
import { Pick } from "../../controls/Pick";
import { QuantityField } from "../../controls/QuantityField";
import { by } from "../../controls/steps";
import { Fields, Lead, Wide } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";
import { planeOf, withPlane } from "../../shot/moves";

type Strip = NonNullable<NonNullable<Shot["plane"]>["strip"]>;

/** The deliberate opposite: a strip of sharpness through two points, the rest soft. */
export function StripPick({ plane }: { plane: PlaneSection | null }) {
  const { shot, edit, problemAt, cautionAt, lookAt } = useBench();
  const points = planeOf(shot).points.filter((point) => point.depth.by !== "angle");
  const strip = planeOf(shot).strip ?? null;
  const options = points.map((point) => ({ id: point.id, label: point.name || `Point ${point.id}` }));
  const set = (change: Strip | null) => {
    edit((draft) => withPlane(draft, { strip: change }));
    if (change) lookAt("strip");
  };
  if (options.length < 2) return <Lead>Place two points on the line that is to stay sharp.</Lead>;
  const now: Strip = strip ?? { first: options[0]?.id ?? "", second: options[1]?.id ?? "", tilt_deg: null };
  return (
    <>
      <Lead>
        Tilted against the subject's slope, only a strip along a line stays sharp. It joins the ways below.
      </Lead>
      <Fields>
        <Pick
          label="Through"
          value={now.first}
          options={options}
          onChange={(first) => set({ ...now, first })}
        />
        <Pick
          label="and"
          value={now.second}
          options={options}
          onChange={(second) => set({ ...now, second })}
        />
        <Wide>
          <QuantityField
            label="Tilt"
            kind="plain"
            unit="°"
            value={now.tilt_deg ?? null}
            step={by(0.5, 2, 0.5)}
            onChange={(tilt_deg) => set({ ...now, tilt_deg })}
            onEmpty={() => set({ ...now, tilt_deg: null })}
            emptyHint="all that the lens has"
            problem={problemAt("/plane/strip/tilt_deg")}
          />
        </Wide>
      </Fields>
      {strip ? (
        <>
          <Lead>{plane?.strip?.words ?? problemAt("/plane/strip") ?? cautionAt("/plane/strip") ?? ""}</Lead>
          <Button onPress={() => set(null)}>No strip</Button>
        </>
      ) : (
        <Button onPress={() => set(now)}>Work out the strip</Button>
      )}
    </>
  );
}
