import { usePreferences } from "../../look/preferences";
import { Button } from "../../controls/Button";
import { Segments } from "../../controls/Segments";
import { along, by } from "../../controls/steps";
import type { ApertureAnswer, Shot } from "../../api/types";
import { length, percent, stop } from "../../units/format";
import { AnswerBox, Facts, Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { ShotPick, ShotQuantity, useShotField } from "../../shot/fields";
import { useBench } from "../../shot/ShotContext";

const SCHOOLS = [
  { id: "contrast", label: "Contrast: defocus and diffraction together" },
  { id: "geometric", label: "Geometric: the classic tables" },
  { id: "budget", label: "Budget: diffraction spends first" },
  { id: "wave", label: "Wave: every frame at the lens's resolution" },
  { id: "microscopy", label: "Microscopy: wave plus what the sensor keeps" },
] as const;

/** Station 3: small enough for depth, not so small that light itself blurs. */
export function AperturePanel() {
  const { shot, plan } = useBench();
  const { units } = usePreferences();
  const { reading } = shot.aperture;
  const readings = (plan?.aperture?.stops ?? []).map((each) => shownAs(reading, each, convertersOf(shot)));
  const best = plan?.focus_behind_nearest_mm;
  return (
    <>
      <Heading>How far to stop down?</Heading>
      <Lead>Each stop on the right: where the smallest detail keeps its contrast.</Lead>
      <Fields>
        <ShotQuantity
          at="/aperture/f_number"
          label={reading === "marked" ? "Aperture" : "Aperture shown"}
          step={along(readings)}
        />
        <ShotQuantity
          at="/focus_behind_nearest_mm"
          step={by(0.1, 1, -1e5)}
          emptyHint="best"
          hint={
            shot.focus_behind_nearest_mm === null && best != null
              ? `best is ${length(best, units)}`
              : "empty it for the best"
          }
        />
        <Wide>
          <CameraShows />
        </Wide>
      </Fields>
      {plan?.aperture ? <StopAnswer aperture={plan.aperture} /> : null}
      <DepthSchools />
    </>
  );
}

type Reading = "marked" | "effective" | "with_converter";

/** What the converters in the row multiply a marked number by. */
function convertersOf(shot: Shot): number {
  return shot.rig.reduce((times, { gear }) => (gear.kind === "converter" ? times * gear.factor : times), 1);
}

function shownAs(reading: Reading, stop: { f_number: number; effective_f_number: number }, times: number) {
  if (reading === "effective") return stop.effective_f_number;
  return reading === "with_converter" ? stop.f_number * times : stop.f_number;
}

/** Whether the camera shows the marked number or the one that works; the stop itself stays. */
function CameraShows() {
  const { plan, edit } = useBench();
  const { shot } = useBench();
  const { value, facts } = useShotField<Reading>("/aperture/reading");
  const aperture = plan?.aperture;
  const times = convertersOf(shot);
  return (
    <Segments
      label={facts.title}
      value={value}
      options={[
        { id: "marked", label: "the marked number" },
        { id: "effective", label: "the one that works" },
        ...(times > 1 ? [{ id: "with_converter" as const, label: "times the converter" }] : []),
      ]}
      onChange={(reading) =>
        edit((draft) => ({
          ...draft,
          aperture: {
            reading,
            f_number: aperture ? shownAs(reading, aperture, times) : draft.aperture.f_number,
          },
        }))
      }
    />
  );
}

/** The stop in use in figures, and the one that would serve best. */
function StopAnswer({ aperture }: { aperture: ApertureAnswer }) {
  const { shot, plan } = useBench();
  const { units } = usePreferences();
  const { set } = useShotField<number>("/aperture/f_number");
  const chosen = aperture.stops.find((each) => each.f_number === aperture.f_number);
  const offered = shot.aperture.reading === "marked" && shot.aperture.f_number !== aperture.best_f_number;
  return (
    <>
      <AnswerBox {...(aperture.depth_of_field_mm > 0 ? {} : { "data-trouble": "" })}>
        <strong>
          {aperture.depth_of_field_mm > 0
            ? `${length(aperture.depth_of_field_mm, units)} sharp in one frame`
            : "Nothing is wholly sharp at this stop, for a picture of this size"}
        </strong>
        {aperture.best_words}
        {chosen?.soft && chosen.f_number !== aperture.best_f_number
          ? ` At ${stop(chosen.f_number)} the ends are ${chosen.soft}.`
          : ""}
        {offered ? (
          <div style={{ marginTop: 8 }}>
            <Button onPress={() => set(aperture.best_f_number)}>Set {stop(aperture.best_f_number)}</Button>
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
        <dd>{plan?.sharpness ? length(plan.sharpness.circle_um / 1000, units) : "—"}</dd>
        <dt>contrast in perfect focus</dt>
        <dd>{chosen ? percent(Math.max(chosen.perfect_contrast, 0)) : "—"}</dd>
        <dt>numerical aperture</dt>
        <dd>{aperture.numerical_aperture.toFixed(4)}</dd>
      </Facts>
    </>
  );
}

/** Depth of field as each school reckons it, one of them in use. */
function DepthSchools() {
  const { shot, plan } = useBench();
  const { units } = usePreferences();
  const aperture = plan?.aperture;
  return (
    <>
      <Section>Depth of field, as each school reckons it</Section>
      <Fields>
        <Wide>
          <ShotPick at="/sharp/depth_school" label="In use" options={SCHOOLS} />
        </Wide>
      </Fields>
      <Facts>
        {(aperture?.schools ?? []).map((each) => (
          <FactsRow
            key={each.school}
            name={each.school + (each.school === shot.sharp.depth_school ? " (in use)" : "")}
          >
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
