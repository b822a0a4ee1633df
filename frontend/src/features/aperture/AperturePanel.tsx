import { usePreferences } from "../../look/preferences";
import { Button } from "../../controls/Button";
import { Pick } from "../../controls/Pick";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { along, by } from "../../controls/steps";
import type { Shot } from "../../api/types";
import { length, percent, stop } from "../../units/format";
import { AnswerBox, Facts, Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";

const SCHOOLS = {
  contrast: "Contrast: defocus and diffraction together",
  geometric: "Geometric: the classic tables",
  budget: "Budget: diffraction spends first",
  wave: "Wave: every frame at the lens's resolution",
  microscopy: "Microscopy: wave plus what the sensor keeps",
} as const;

/** Station 3: small enough for depth, not so small that light itself blurs. */
export function AperturePanel() {
  const { shot, plan, edit, problemAt, cautionAt } = useBench();
  const { units } = usePreferences();
  const aperture = plan?.aperture;
  const effective = shot.aperture.reading === "effective";
  const readings = (aperture?.stops ?? []).map((each) =>
    effective ? each.effective_f_number : each.f_number,
  );
  const setStop = (f_number: number) =>
    edit((draft) => ({ ...draft, aperture: { ...draft.aperture, f_number } }));
  const setFocus = (focus_behind_nearest_mm: number | null) =>
    edit((draft) => ({ ...draft, focus_behind_nearest_mm }));
  const school = shot.sharp?.depth_school ?? "contrast";
  const chosen = aperture?.stops.find((each) => each.f_number === aperture.f_number);
  const threshold = shot.sharp?.contrast_threshold ?? 0.2;
  return (
    <>
      <Heading>How far to stop down?</Heading>
      <Lead>Each stop on the right: where the smallest detail keeps its contrast.</Lead>
      <Fields>
        <QuantityField
          label={effective ? "Aperture shown" : "Aperture"}
          kind="fNumber"
          value={shot.aperture.f_number}
          step={along(readings)}
          onChange={setStop}
          problem={problemAt("/aperture/f_number")}
          hint={cautionAt("/aperture/f_number")}
        />
        <QuantityField
          label="Focus behind nearest"
          kind="length"
          value={shot.focus_behind_nearest_mm ?? null}
          step={by(0.1, 1, -1e5)}
          onChange={setFocus}
          onEmpty={() => setFocus(null)}
          emptyHint="best"
          hint={
            shot.focus_behind_nearest_mm == null && plan?.focus_behind_nearest_mm != null
              ? `best is ${length(plan.focus_behind_nearest_mm, units)}`
              : "empty it for the best"
          }
          problem={problemAt("/focus_behind_nearest_mm")}
        />
        <Wide>
          <Segments
            label="The camera shows"
            value={shot.aperture.reading ?? "marked"}
            options={[
              { id: "marked", label: "the marked number" },
              { id: "effective", label: "the one that works" },
            ]}
            onChange={(reading) =>
              edit((draft) => ({
                ...draft,
                aperture: {
                  reading,
                  f_number:
                    (reading === "effective" ? aperture?.effective_f_number : aperture?.f_number) ??
                    draft.aperture.f_number,
                },
              }))
            }
          />
        </Wide>
      </Fields>
      {aperture && chosen ? (
        <>
          <AnswerBox {...(aperture.depth_of_field_mm > 0 ? {} : { "data-trouble": "" })}>
            <strong>
              {aperture.depth_of_field_mm > 0
                ? `${length(aperture.depth_of_field_mm, units)} sharp in one frame`
                : "No depth at this stop"}
            </strong>
            {aperture.best_worst_contrast >= threshold
              ? `Best for this depth: ${stop(aperture.best_f_number)}, nowhere under ${percent(aperture.best_worst_contrast)} contrast.`
              : `No stop carries the whole depth in one frame; ${stop(aperture.best_f_number)} comes nearest, with ${percent(Math.max(aperture.best_worst_contrast, 0))}.`}
            {shot.aperture.f_number !== aperture.best_f_number &&
            !effective &&
            aperture.best_worst_contrast >= threshold ? (
              <div style={{ marginTop: 8 }}>
                <Button onPress={() => setStop(aperture.best_f_number)}>
                  Set {stop(aperture.best_f_number)}
                </Button>
              </div>
            ) : null}
          </AnswerBox>
          <Facts>
            <dt>works as</dt>
            <dd>{stop(aperture.effective_f_number)}</dd>
            <dt>light lost to extension</dt>
            <dd>{aperture.stops_lost.toFixed(2)} stops</dd>
            <dt>light itself blurs</dt>
            <dd>{length(aperture.airy_um / 1000, units)}</dd>
            <dt>detail asked</dt>
            <dd>{length((plan?.sharpness?.circle_um ?? 0) / 1000, units)}</dd>
            <dt>contrast in perfect focus</dt>
            <dd>{percent(Math.max(chosen.perfect_contrast, 0))}</dd>
            <dt>numerical aperture</dt>
            <dd>{aperture.numerical_aperture.toFixed(4)}</dd>
          </Facts>
        </>
      ) : null}
      <Section>Depth of field, as each school reckons it</Section>
      <Fields>
        <Wide>
          <Pick
            label="In use"
            value={school}
            options={Object.entries(SCHOOLS).map(([id, label]) => ({ id, label }))}
            onChange={(id) =>
              edit((draft) => ({
                ...draft,
                sharp: {
                  ...draft.sharp,
                  depth_school: id as NonNullable<Shot["sharp"]>["depth_school"],
                } as Shot["sharp"],
              }))
            }
          />
        </Wide>
      </Fields>
      <Facts>
        {(aperture?.schools ?? []).map((each) => (
          <FactsRow key={each.school} name={each.school + (each.school === school ? " (in use)" : "")}>
            {each.total_mm > 0
              ? `${length(each.near_mm, units)} + ${each.far_mm === null ? "endless" : length(each.far_mm, units)}`
              : "none left"}
          </FactsRow>
        ))}
      </Facts>
      <Lead>
        Before the plane of focus + behind it, at {stop(aperture?.f_number ?? shot.aperture.f_number)} marked.
      </Lead>
    </>
  );
}

function FactsRow({ name, children }: { name: string; children: string }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  );
}
