import { by, byShare } from "../../controls/steps";
import { RoomyFold } from "../../controls/Fold";
import { Told } from "../../controls/Told";
import { usePreferences } from "../../look/preferences";
import { length } from "../../units/format";
import { Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { Cautions } from "../../shot/Cautions";
import { ShotCheck, ShotPick, ShotQuantity, ShotSegments, ShotText } from "../../shot/fields";
import { FlatSubject } from "./FlatSubject";
import { Reminders } from "../../shot/Reminders";
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
export function SubjectPanel({ shotId }: { shotId: string }) {
  return (
    <>
      <Heading>What must be sharp?</Heading>
      <Lead>From the nearest point to the farthest, along the lens's axis.</Lead>
      <Reminders shotId={shotId} />
      <Fields>
        <Depth />
        <ShotQuantity at="/subject/hold_still_s" step={byShare} emptyHint="for ever" />
        <ShotQuantity at="/subject/moves_mm_s" step={byShare} emptyHint="not at all" />
        <ShotQuantity at="/subject/background_mm" step={byShare} emptyHint="no matter" />
      </Fields>
      <FlatSubject />
      <Fields>
        <Wide>
          <ShotPick at="/subject/nature" options={NATURES} />
        </Wide>
        <Wide>
          <ShotCheck at="/subject/crosses" />
        </Wide>
      </Fields>
      <Cautions station="subject" />
      <Section>Where will it be seen?</Section>
      <Fields>
        <ShotQuantity at="/picture/width_mm" step={by(10, 100, 10)} />
        <ShotQuantity at="/picture/viewing_distance_mm" step={by(10, 100, 10)} />
        <ShotQuantity at="/picture/share_of_frame" step={by(0.01, 0.1, 0.01)} />
        <ShotQuantity at="/sharp/contrast_threshold" step={by(0.01, 0.05, 0.01)} />
        <Wide>
          <ShotSegments at="/sharp/school" options={SCHOOLS} />
        </Wide>
      </Fields>
      <SharpInWords />
      <RoomyFold title="The shot: name, heading, notes">
        <Fields>
          <Wide>
            <ShotText at="/name" />
          </Wide>
          <Wide>
            <ShotText at="/subject/what" />
          </Wide>
          <Wide>
            <ShotText at="/heading" />
          </Wide>
          <Wide>
            <ShotText at="/notes" lines />
          </Wide>
        </Fields>
      </RoomyFold>
    </>
  );
}

/** How deep: typed, or told by the points where they are read. */
function Depth() {
  const { plan } = useBench();
  const { units } = usePreferences();
  return plan?.depth_from_points ? (
    <Told label="Depth" text={length(plan.depth_mm, units)} hint="From the points at Plane." />
  ) : (
    <ShotQuantity at="/subject/depth_mm" step={byShare} />
  );
}

/** What the school in use makes of it, and the number that only the pixel school asks for. */
function SharpInWords() {
  const { shot, plan, problemAt } = useBench();
  const { units } = usePreferences();
  const sharpness = plan?.sharpness;
  const school = sharpness?.schools.find((each) => each.school === shot.sharp.school);
  return (
    <>
      {sharpness && school ? (
        <Lead>
          {school.circle_um === null
            ? school.why
            : `Detail of ${length(school.circle_um / 1000, units)} on the sensor, ${length(
                sharpness.smallest_detail_um / 1000,
                units,
              )} in the subject: ${school.why}.`}
        </Lead>
      ) : (
        <Lead>{problemAt("/body/pixels_across")}</Lead>
      )}
      {shot.sharp.school === "pixel" ? (
        <Fields>
          <ShotQuantity at="/sharp/pixel_factor" step={by(0.5, 1, 0.5)} />
        </Fields>
      ) : null}
    </>
  );
}
