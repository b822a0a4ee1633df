import { Button } from "../../controls/Button";
import { by, byShare } from "../../controls/steps";
import { Fields, Lead, Wide } from "../../controls/panel";
import { QuantityField } from "../../controls/QuantityField";
import { flatOf, planeOf, withFlat, withPlane, withPoint } from "../../shot/moves";
import { useBench } from "../../shot/ShotContext";

const DEGREES = by(1, 5, 0);
/** Edge on there is no plane to lay. */
const upTo89: typeof DEGREES = (...asked) => Math.min(DEGREES(...asked), 89);

/** A flat thing by its angle: a page, a bar, a tray, leaning away from the camera. */
export function FlatSubject() {
  const { shot, edit, problemAt } = useBench();
  const flat = flatOf(shot);
  if (!flat) {
    return planeOf(shot).points.length ? null : (
      <Button onPress={() => edit(withFlat)}>It is flat and leans away</Button>
    );
  }
  const field = `/plane/points/${flat.at}/depth`;
  const set = (change: Partial<typeof flat.depth>) =>
    edit((draft) =>
      withPoint(draft, flat.point.id, (point) => ({ ...point, depth: { ...flat.depth, ...change } })),
    );
  return (
    <Fields>
      <QuantityField
        label="From square to the camera"
        kind="plain"
        unit="°"
        value={flat.depth.angle_deg}
        step={upTo89}
        onChange={(angle_deg) => set({ angle_deg })}
        problem={problemAt(`${field}/angle_deg`)}
      />
      <QuantityField
        label="Long that way"
        kind="length"
        value={flat.depth.length_mm}
        step={byShare}
        onChange={(length_mm) => set({ length_mm })}
        problem={problemAt(`${field}/length_mm`)}
      />
      <QuantityField
        label="Wide"
        kind="length"
        value={flat.depth.width_mm}
        step={byShare}
        onChange={(width_mm) => set({ width_mm })}
        problem={problemAt(`${field}/width_mm`)}
      />
      <Wide>
        <Lead>It recedes toward the top of the frame; another way round is set at Plane.</Lead>
        <Button
          data-weight="quiet"
          onPress={() =>
            edit((draft) =>
              withPlane(draft, {
                points: planeOf(draft).points.filter((point) => point.id !== flat.point.id),
              }),
            )
          }
        >
          It is not flat
        </Button>
      </Wide>
    </Fields>
  );
}
