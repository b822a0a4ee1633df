import { RoomyFold } from "../../controls/Fold";
import { FigureTable } from "../../controls/FigureTable";
import { along, by, byShare, byThirds } from "../../controls/steps";
import { stop } from "../../units/format";
import { shutter } from "../../api/shutter";
import { withValueAt } from "../../api/pointer";
import { AnswerBox, Fields, Heading, Lead, Wide } from "../../controls/panel";
import { Steadiness } from "./Steadiness";
import { OnSet } from "./OnSet";
import { Cautions } from "../../shot/Cautions";
import { ShotCheck, ShotQuantity, ShotSegments } from "../../shot/fields";
import { useBench } from "../../shot/ShotContext";

const ISOS = [50, 100, 200, 400, 800, 1600, 3200, 6400, 12800, 25600];

const METERS = [
  { id: "through_lens", label: "through the lens" },
  { id: "hand_held", label: "in the hand" },
] as const;

/** Station 6: one exposure for all frames, from what the meter said. */
export function LightPanel() {
  return (
    <>
      <Heading>How long to expose?</Heading>
      <Lead>Meter once, then set the exposure by hand, so that all frames match.</Lead>
      <Meter />
      <Exposure />
      <RoomyFold title="Shutter wanted, and flash">
        <Fields>
          <ShotQuantity at="/light/wanted_shutter_s" step={byThirds} emptyHint="any" />
          <ShotQuantity at="/light/compensation_stops" step={by(1 / 3, 1, -10)} />
          <ShotQuantity at="/light/flash_guide_number_m" step={byShare} emptyHint="no flash" />
          <ShotQuantity at="/light/flash_distance_mm" step={by(10, 100, 10)} emptyHint="not known" />
        </Fields>
      </RoomyFold>
      <Steadiness />
      <RoomyFold title="On the set">
        <OnSet />
      </RoomyFold>
      <Cautions station="light" />
      <EqualExposures />
    </>
  );
}

/** What the meter said: a number typed here was read. */
function Meter() {
  const { edit } = useBench();
  const read = (at: string) => (value: number) =>
    edit((draft) => withValueAt(withValueAt(draft, at, value), "/light/read", true));
  return (
    <Fields>
      <Wide>
        <ShotSegments at="/light/meter" options={METERS} />
      </Wide>
      <ShotQuantity
        at="/light/metered_f_number"
        step={along([1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32])}
        onChange={read("/light/metered_f_number")}
      />
      <ShotQuantity
        at="/light/metered_shutter_s"
        label="with"
        step={byThirds}
        onChange={read("/light/metered_shutter_s")}
      />
      <ShotQuantity
        at="/light/metered_iso"
        label="at ISO"
        step={along(ISOS)}
        onChange={read("/light/metered_iso")}
      />
      <ShotQuantity at="/light/iso" step={along(ISOS)} />
      <Wide>
        <ShotCheck at="/light/read" />
      </Wide>
    </Fields>
  );
}

/** The exposure at the stop in use, and what else follows for the light. */
function Exposure() {
  const { shot, plan } = useBench();
  const { light, aperture } = plan ?? {};
  if (!light || !aperture) return null;
  return (
    <AnswerBox>
      <strong>
        {light.read ? "" : "Assumed: "}
        {light.shutter_words} at {stop(aperture.f_number)}, ISO {light.iso}
      </strong>
      {light.read ? "" : "No reading was taken yet; nothing is warned of until it is. "}
      {light.stops_lost < 0.05
        ? "Extension costs no light worth counting."
        : shot.light.meter === "hand_held"
          ? `${light.stops_lost.toFixed(1)} stops lost to extension are added.`
          : `The meter has seen the ${light.stops_lost.toFixed(1)} stops lost to extension.`}
      {light.words.map((words) => ` ${words}`)}
    </AnswerBox>
  );
}

/** The same light at every stop of the lens. */
function EqualExposures() {
  const { aperture } = useBench().plan ?? {};
  if (!aperture) return null;
  return (
    <RoomyFold title="Equal exposures">
      <FigureTable>
        <thead>
          <tr>
            <th>marked</th>
            <th>works as</th>
            <th>shutter</th>
          </tr>
        </thead>
        <tbody>
          {aperture.stops.map((each) => (
            <tr key={each.f_number} {...(each.f_number === aperture.f_number ? { "data-chosen": "" } : {})}>
              <td>{stop(each.f_number)}</td>
              <td>{stop(each.effective_f_number)}</td>
              <td>{shutter(each.shutter_s)}</td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
    </RoomyFold>
  );
}
