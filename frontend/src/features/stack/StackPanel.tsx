import { RoomyFold } from "../../controls/Fold";
import { Segments } from "../../controls/Segments";
import { by } from "../../controls/steps";
import { Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { ShotCheck, ShotQuantity, ShotSegments, useShotField } from "../../shot/fields";
import { useBench } from "../../shot/ShotContext";
import { RailPick } from "./RailPick";
import { OwnSteps } from "./OwnSteps";
import { StackAnswer } from "./StackAnswer";

const OVERLAPS = [
  { id: "0.25", label: "quarter" },
  { id: "0.5", label: "half" },
  { id: "0.667", label: "two thirds" },
];

const SLABS = [
  { id: "as_needed", label: "as needed" },
  { id: "always", label: "always" },
  { id: "never", label: "never" },
] as const;

const MOVES = [
  { id: "rail", label: "camera on a rail" },
  { id: "ring", label: "focus ring" },
] as const;
const IN_HAND = [...MOVES, { id: "hand", label: "from the hand" }] as const;

/** Station 5: step, steps and frames, by rail or by ring, against the time there is. */
export function StackPanel() {
  const { shot, plan, way, lookAt } = useBench();
  const inHand = shot.steadiness.held === "hand";
  const kind =
    way?.kind === "ring" ? "ring" : way?.kind === "hand" || (inHand && !way?.stack) ? "hand" : "rail";
  const spares = shot.stack.spare_before + shot.stack.spare_after > 0;
  const planned = way?.stack ? way : plan?.ways.find((each) => each.id === kind);
  return (
    <>
      <Heading>How many frames, how far apart?</Heading>
      <Lead>
        {kind === "hand"
          ? "Lean in slowly and release at equal places; what the hand's sway leaves open is reckoned with."
          : way?.id.startsWith("tilt_")
            ? "The lens stays tilted, and the tilted plane moves from frame to frame until each point has lain in one."
            : spares
              ? "From the nearest point to the farthest or just past it; spare frames lie outside."
              : "The first frame focuses on the nearest point, the last on the farthest or just past it."}
      </Lead>
      <Fields>
        <Wide>
          <Segments label="What moves" value={kind} options={inHand ? IN_HAND : MOVES} onChange={lookAt} />
        </Wide>
      </Fields>
      {planned ? <StackAnswer way={planned} kind={kind} /> : null}
      <OwnSteps kind={kind} />
      <Section>Overlap</Section>
      <Fields>
        <Wide>
          <NamedOverlap />
        </Wide>
        <ShotQuantity at="/stack/overlap" step={by(0.01, 0.05)} />
        <ShotQuantity at="/stack/settle_s" step={by(0.1, 1)} />
        <ShotQuantity at="/stack/spare_before" step={by(1, 5)} />
        <ShotQuantity at="/stack/spare_after" step={by(1, 5)} />
      </Fields>
      <RoomyFold title="Rail and camera">
        <Fields>
          <Wide>
            <RailPick />
          </Wide>
          <ShotQuantity
            at="/stack/rail_smallest_step_mm"
            step={by(0.001, 0.01, 0.001)}
            emptyHint="not known"
          />
          <ShotQuantity at="/stack/rail_travel_mm" step={by(1, 10, 1)} emptyHint="not known" />
          <ShotQuantity at="/stack/rail_mm_per_turn" step={by(0.01, 0.1, 0.01)} emptyHint="not known" />
          <ShotQuantity at="/stack/rail_divisions" step={by(1, 10, 1)} emptyHint="not known" />
          <ShotQuantity at="/stack/rail_play_mm" step={by(0.01, 0.1, 0.01)} emptyHint="not known" />
          <ShotQuantity at="/stack/recovery_s" step={by(0.1, 1)} />
          <Wide>
            <ShotCheck at="/stack/noise_reduction" />
          </Wide>
          <ShotQuantity at="/stack/keep_every" step={by(1, 5, 1)} unit="frame" />
          <Wide>
            <ShotSegments at="/stack/slabs" options={SLABS} />
          </Wide>
        </Fields>
      </RoomyFold>
    </>
  );
}

/** The overlaps that have names. */
function NamedOverlap() {
  const { value, set } = useShotField<number>("/stack/overlap");
  return (
    <Segments
      label="Of one frame's depth with the next"
      value={OVERLAPS.find((each) => Math.abs(Number(each.id) - value) < 0.002)?.id ?? ""}
      options={OVERLAPS}
      onChange={(id) => set(id === "0.667" ? 2 / 3 : Number(id))}
    />
  );
}
