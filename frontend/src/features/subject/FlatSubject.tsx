import styled from "styled-components";
import { Button } from "../../controls/Button";
import { by, byShare } from "../../controls/steps";
import { Fields, Wide } from "../../controls/panel";
import { Pick } from "../../controls/Pick";
import { QuantityField } from "../../controls/QuantityField";
import { flatOf, planeOf, withFlat, withPlane, withPoint } from "../../shot/moves";
import { useBench } from "../../shot/ShotContext";

const Apart = styled.div`
  margin-bottom: 16px;
`;

const DEGREES = by(1, 5, 0);
/** Edge on there is no plane to lay. */
const upTo89: typeof DEGREES = (...asked) => Math.min(DEGREES(...asked), 89);

const TOWARD = [
  { id: "90", label: "the top of the frame" },
  { id: "0", label: "the right" },
  { id: "270", label: "the bottom" },
  { id: "180", label: "the left" },
] as const;
const turn = (degrees: number) => ((degrees % 360) + 360) % 360;

/** A flat thing by its angle: a page, a bar, a tray, leaning away from the camera. */
export function FlatSubject() {
  const { shot, edit, problemAt } = useBench();
  const flat = flatOf(shot);
  if (!flat) {
    return planeOf(shot).points.length ? null : (
      <Apart>
        <Button onPress={() => edit(withFlat)}>It is flat and leans away</Button>
      </Apart>
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
        label="From square"
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
        <Pick
          label="It leans away toward"
          value={TOWARD.find((each) => Number(each.id) === turn(flat.depth.recedes_deg))?.id ?? null}
          placeholder={`${flat.depth.recedes_deg}°, as set at Plane`}
          options={TOWARD}
          onChange={(id) => set({ recedes_deg: Number(id) })}
        />
      </Wide>
      <Wide>
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
