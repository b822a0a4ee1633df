import { shutter } from "../../api/shutter";
import { by, byShare } from "../../controls/steps";
import { seconds } from "../../units/format";
import { Fields, Lead, Section, Wide } from "../../controls/panel";
import { ShotQuantity, ShotSegments } from "../../shot/fields";
import { OwnSway } from "./OwnSway";
import { useBench } from "../../shot/ShotContext";

const HELD = [
  { id: "support", label: "on a support" },
  { id: "hand", label: "in the hand" },
] as const;

/** What holds the camera and how it moves, and the longest shutter that follows for the way looked at. */
export function Steadiness() {
  const { shot, way } = useBench();
  const inHand = shot.steadiness.held === "hand";
  const told = way?.steady;
  const limits = [
    told?.subject_s != null ? `${shutter(told.subject_s)} against the subject's movement` : "",
    told?.support_s != null ? `${shutter(told.support_s)} on this support, as tried` : "",
    told?.hand_s != null ? `${shutter(told.hand_s)} by hand` : "",
  ].filter(Boolean);
  return (
    <>
      <Section>Steadiness</Section>
      <Fields>
        <Wide>
          <ShotSegments at="/steadiness/held" options={HELD} />
        </Wide>
        {inHand ? (
          <>
            <ShotQuantity at="/steadiness/stabiliser_stops" step={by(0.5, 1)} />
            <ShotQuantity
              at="/steadiness/hand_sways_mm"
              step={byShare}
              emptyHint="assumed"
              hint="leaning in; 0.4 mm if not known"
            />
            <OwnSway />
          </>
        ) : (
          <>
            <ShotQuantity at="/steadiness/rail_swings_um" step={byShare} emptyHint="not known" />
            <ShotQuantity at="/steadiness/rail_calms_s" label="and calms in" step={byShare} />
          </>
        )}
      </Fields>
      <Lead>
        {limits.length ? `No longer than ${limits.join(", and ")}. ` : ""}
        {told?.settle_s != null ? `Wait ${seconds(told.settle_s)} after each move. ` : ""}
        {inHand ? "" : "On a support switch the stabiliser off, and release without touching."}
      </Lead>
    </>
  );
}
