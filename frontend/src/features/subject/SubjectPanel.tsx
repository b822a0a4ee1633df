import { Pick } from "../../controls/Pick";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by, byShare } from "../../controls/steps";
import { Told } from "../../controls/Told";
import { TextBox } from "../../controls/TextBox";
import { usePreferences } from "../../look/preferences";
import type { Shot } from "../../api/types";
import { length } from "../../units/format";
import { Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { Cautions } from "../../shot/Cautions";
import { useBench } from "../../shot/ShotContext";

const SCHOOLS = [
  { id: "viewing", label: "by eye" },
  { id: "sensor", label: "by sensor" },
  { id: "pixel", label: "by pixel" },
] as const;

const NATURES = [
  { id: "thing", label: "a thing" },
  { id: "food", label: "food" },
  { id: "liquid", label: "a liquid" },
  { id: "plant", label: "a living plant" },
  { id: "animal", label: "an animal" },
  { id: "person", label: "a person" },
] as const;

/** Station 1: what must be sharp, how long it holds still, where it will be seen, and what counts as sharp. */
export function SubjectPanel() {
  const { shot, plan, edit, problemAt, cautionAt } = useBench();
  const { units } = usePreferences();
  const { subject, picture, sharp } = shot;
  const set = (change: Partial<Shot["subject"]>) =>
    edit((draft) => ({ ...draft, subject: { ...draft.subject, ...change } }));
  const seen = (change: Partial<Shot["picture"]>) =>
    edit((draft) => ({ ...draft, picture: { ...draft.picture, ...change } as Shot["picture"] }));
  const sharpen = (change: Partial<Shot["sharp"]>) =>
    edit((draft) => ({ ...draft, sharp: { ...draft.sharp, ...change } as Shot["sharp"] }));
  const school = plan?.sharpness?.schools.find((each) => each.school === sharp?.school);
  return (
    <>
      <Heading>What must be sharp?</Heading>
      <Lead>From the nearest point to the farthest, along the lens's axis.</Lead>
      <Fields>
        {plan?.depth_from_points ? (
          <Told label="Depth" text={length(plan.depth_mm, units)} hint="From the points at Plane." />
        ) : (
          <QuantityField
            label="Depth"
            kind="length"
            value={subject.depth_mm}
            step={byShare}
            onChange={(value) => set({ depth_mm: value })}
            problem={problemAt("/subject/depth_mm")}
            hint={cautionAt("/subject/depth_mm")}
          />
        )}
        <QuantityField
          label="Holds still for"
          kind="time"
          value={subject.hold_still_s ?? null}
          step={byShare}
          onChange={(value) => set({ hold_still_s: value })}
          onEmpty={() => set({ hold_still_s: null })}
          emptyHint="for ever"
          problem={problemAt("/subject/hold_still_s")}
        />
        <QuantityField
          label="Moves, mm a second"
          kind="plain"
          value={subject.moves_mm_s ?? null}
          step={byShare}
          onChange={(moves_mm_s) => set({ moves_mm_s })}
          onEmpty={() => set({ moves_mm_s: null })}
          emptyHint="not at all"
          problem={problemAt("/subject/moves_mm_s")}
        />
        <QuantityField
          label="Background behind it"
          kind="length"
          value={subject.background_mm ?? null}
          step={byShare}
          onChange={(background_mm) => set({ background_mm })}
          onEmpty={() => set({ background_mm: null })}
          emptyHint="no matter"
          problem={problemAt("/subject/background_mm")}
        />
      </Fields>
      <Fields>
        <Wide>
          <Pick
            label="It is"
            value={subject.nature ?? "thing"}
            options={NATURES}
            onChange={(nature) => set({ nature: nature as NonNullable<Shot["subject"]["nature"]> })}
          />
        </Wide>
      </Fields>
      <Cautions station="subject" />
      <Section>Where will it be seen?</Section>
      <Fields>
        <QuantityField
          label="Picture width"
          kind="length"
          value={picture?.width_mm ?? 400}
          step={by(10, 100, 10)}
          onChange={(value) => seen({ width_mm: value })}
          problem={problemAt("/picture/width_mm")}
        />
        <QuantityField
          label="Seen from"
          kind="length"
          value={picture?.viewing_distance_mm ?? 300}
          step={by(10, 100, 10)}
          onChange={(value) => seen({ viewing_distance_mm: value })}
          problem={problemAt("/picture/viewing_distance_mm")}
        />
        <QuantityField
          label="Left after crop"
          kind="percent"
          value={picture?.share_of_frame ?? 1}
          step={(value, direction, coarse) => Math.min(by(0.01, 0.1, 0.01)(value, direction, coarse), 1)}
          onChange={(value) => seen({ share_of_frame: value })}
          problem={problemAt("/picture/share_of_frame")}
        />
        <QuantityField
          label="Least contrast"
          kind="percent"
          value={sharp?.contrast_threshold ?? 0.2}
          step={(value, direction, coarse) => Math.min(by(0.01, 0.05, 0.01)(value, direction, coarse), 0.9)}
          onChange={(value) => sharpen({ contrast_threshold: value })}
          problem={problemAt("/sharp/contrast_threshold")}
        />
        <Wide>
          <Segments
            label="What counts as sharp"
            value={sharp?.school ?? "viewing"}
            options={SCHOOLS}
            onChange={(value) => sharpen({ school: value })}
          />
        </Wide>
      </Fields>
      {school ? (
        <Lead>
          {school.circle_um === null
            ? school.why
            : `Detail of ${length(school.circle_um / 1000, units)} on the sensor, ${length(
                (plan?.sharpness?.smallest_detail_um ?? 0) / 1000,
                units,
              )} in the subject: ${school.why}.`}
        </Lead>
      ) : (
        <Lead>{problemAt("/body/pixels_across")}</Lead>
      )}
      {sharp?.school === "pixel" ? (
        <Fields>
          <QuantityField
            label="Pixels across the blur"
            kind="plain"
            value={sharp.pixel_factor ?? 2}
            step={by(0.5, 1, 0.5)}
            onChange={(value) => sharpen({ pixel_factor: value })}
            problem={problemAt("/sharp/pixel_factor")}
          />
        </Fields>
      ) : null}
      <Section>The shot</Section>
      <Fields>
        <Wide>
          <TextBox
            label="Name"
            value={shot.name}
            maxLength={120}
            onChange={(name) => edit((draft) => ({ ...draft, name }))}
            problem={problemAt("/name")}
          />
        </Wide>
        <Wide>
          <TextBox
            label="Subject"
            value={subject.what ?? ""}
            maxLength={200}
            onChange={(what) => set({ what })}
          />
        </Wide>
        <Wide>
          <TextBox
            label="Notes"
            lines
            maxLength={4000}
            value={shot.notes ?? ""}
            onChange={(notes) => edit((draft) => ({ ...draft, notes }))}
          />
        </Wide>
      </Fields>
    </>
  );
}
