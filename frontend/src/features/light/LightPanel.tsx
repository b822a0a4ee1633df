import { FigureTable } from "../../controls/FigureTable";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { along, by, byThirds } from "../../controls/steps";
import type { Shot } from "../../api/types";
import { seconds, stop } from "../../units/format";
import { AnswerBox, Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { Steadiness } from "./Steadiness";
import { OnSet } from "./OnSet";
import { Cautions } from "../../shot/Cautions";
import { useBench } from "../../shot/ShotContext";

const ISOS = [50, 100, 200, 400, 800, 1600, 3200, 6400, 12800, 25600];

/** Station 6: one exposure for all frames, from what the meter said. */
export function LightPanel() {
  const { shot, plan, edit, problemAt } = useBench();
  const metered = shot.light;
  const light = plan?.light;
  const set = (change: Partial<NonNullable<Shot["light"]>>) =>
    edit((draft) => ({ ...draft, light: { ...draft.light, ...change } as Shot["light"] }));
  return (
    <>
      <Heading>How long to expose?</Heading>
      <Lead>Meter once, then set the exposure by hand, so that all frames match.</Lead>
      <Fields>
        <Wide>
          <Segments
            label="Metered"
            value={metered?.meter ?? "through_lens"}
            options={[
              { id: "through_lens", label: "through the lens" },
              { id: "hand_held", label: "in the hand" },
            ]}
            onChange={(meter) => set({ meter })}
          />
        </Wide>
        <QuantityField
          label="Meter said"
          kind="fNumber"
          value={metered?.metered_f_number ?? 8}
          step={along([1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32])}
          onChange={(metered_f_number) => set({ metered_f_number })}
          problem={problemAt("/light/metered_f_number")}
        />
        <QuantityField
          label="with"
          kind="time"
          value={metered?.metered_shutter_s ?? 0.25}
          step={byThirds}
          onChange={(metered_shutter_s) => set({ metered_shutter_s })}
          problem={problemAt("/light/metered_shutter_s")}
        />
        <QuantityField
          label="at ISO"
          kind="plain"
          value={metered?.metered_iso ?? 100}
          step={along(ISOS)}
          onChange={(metered_iso) => set({ metered_iso })}
          problem={problemAt("/light/metered_iso")}
        />
        <QuantityField
          label="Shoot at ISO"
          kind="plain"
          value={metered?.iso ?? 100}
          step={by(100, 400, 50)}
          onChange={(iso) => set({ iso })}
          problem={problemAt("/light/iso")}
        />
      </Fields>
      {light && plan?.aperture ? (
        <>
          <AnswerBox>
            <strong>
              {seconds(light.shutter_s)} at {stop(plan.aperture.f_number)}, ISO {light.iso}
            </strong>
            {light.stops_lost < 0.05
              ? "Extension costs no light worth counting."
              : metered?.meter === "hand_held"
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
              {plan.aperture.stops.map((each) => (
                <tr
                  key={each.f_number}
                  {...(each.f_number === plan.aperture?.f_number ? { "data-chosen": "" } : {})}
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
