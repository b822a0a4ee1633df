import { FigureTable } from "../../controls/FigureTable";
import { along, by, byThirds } from "../../controls/steps";
import { seconds, stop } from "../../units/format";
import { AnswerBox, Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { Steadiness } from "./Steadiness";
import { OnSet } from "./OnSet";
import { Cautions } from "../../shot/Cautions";
import { ShotQuantity, ShotSegments } from "../../shot/fields";
import { useBench } from "../../shot/ShotContext";

const ISOS = [50, 100, 200, 400, 800, 1600, 3200, 6400, 12800, 25600];

const METERS = [
  { id: "through_lens", label: "through the lens" },
  { id: "hand_held", label: "in the hand" },
] as const;

/** Station 6: one exposure for all frames, from what the meter said. */
export function LightPanel() {
  const { shot, plan } = useBench();
  const { light, aperture } = plan ?? {};
  return (
    <>
      <Heading>How long to expose?</Heading>
      <Lead>Meter once, then set the exposure by hand, so that all frames match.</Lead>
      <Fields>
        <Wide>
          <ShotSegments at="/light/meter" options={METERS} />
        </Wide>
        <ShotQuantity at="/light/metered_f_number" step={along([1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32])} />
        <ShotQuantity at="/light/metered_shutter_s" label="with" step={byThirds} />
        <ShotQuantity at="/light/metered_iso" label="at ISO" step={along(ISOS)} />
        <ShotQuantity at="/light/iso" step={by(100, 400, 50)} />
      </Fields>
      {light && aperture ? (
        <>
          <AnswerBox>
            <strong>
              {seconds(light.shutter_s)} at {stop(aperture.f_number)}, ISO {light.iso}
            </strong>
            {light.stops_lost < 0.05
              ? "Extension costs no light worth counting."
              : shot.light.meter === "hand_held"
                ? `${light.stops_lost.toFixed(1)} stops lost to extension are added.`
                : `The meter has seen the ${light.stops_lost.toFixed(1)} stops lost to extension.`}
          </AnswerBox>
          <Section>Equal exposures</Section>
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
                <tr
                  key={each.f_number}
                  {...(each.f_number === aperture.f_number ? { "data-chosen": "" } : {})}
                >
                  <td>{stop(each.f_number)}</td>
                  <td>{stop(each.effective_f_number)}</td>
                  <td>{seconds(each.shutter_s)}</td>
                </tr>
              ))}
            </tbody>
          </FigureTable>
        </>
      ) : null}
      <Steadiness />
      <OnSet />
      <Cautions station="light" />
    </>
  );
}
