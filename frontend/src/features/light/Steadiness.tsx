import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by, byShare } from "../../controls/steps";
import type { Shot } from "../../api/types";
import { seconds } from "../../units/format";
import { Fields, Lead, Section, Wide } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";

type Steady = NonNullable<Shot["steadiness"]>;

const HELD = [
  { id: "support", label: "on a support" },
  { id: "hand", label: "in the hand" },
] as const;

/** What holds the camera and how it moves, and the longest shutter that follows for the way looked at. */
export function Steadiness() {
  const { shot, way, edit, problemAt } = useBench();
  const steady: Steady = shot.steadiness ?? {};
  const set = (change: Partial<Steady>) =>
    edit((draft) => ({ ...draft, steadiness: { ...draft.steadiness, ...change } }));
  const told = way?.steady;
  const limits = [
    told?.subject_s != null ? `${seconds(told.subject_s)} against the subject's movement` : "",
    told?.hand_s != null ? `${seconds(told.hand_s)} by hand` : "",
  ].filter(Boolean);
  return (
    <>
      <Section>Steadiness</Section>
      <Fields>
        <Wide>
          <Segments
            label="The camera is"
            value={steady.held ?? "support"}
            options={HELD}
            onChange={(held) => set({ held })}
          />
        </Wide>
        {steady.held === "hand" ? (
          <QuantityField
            label="Stabiliser, stops"
            kind="plain"
            value={steady.stabiliser_stops ?? 0}
            step={by(0.5, 1)}
            onChange={(stabiliser_stops) => set({ stabiliser_stops })}
            problem={problemAt("/steadiness/stabiliser_stops")}
          />
        ) : (
          <>
            <QuantityField
              label="Rail swings by, µm"
              kind="plain"
              value={steady.rail_swings_um ?? null}
              step={byShare}
              onChange={(rail_swings_um) => set({ rail_swings_um })}
              onEmpty={() => set({ rail_swings_um: null })}
              emptyHint="not known"
              problem={problemAt("/steadiness/rail_swings_um")}
            />
            <QuantityField
              label="and calms in"
              kind="time"
              value={steady.rail_calms_s ?? 0.3}
              step={byShare}
              onChange={(rail_calms_s) => set({ rail_calms_s })}
              problem={problemAt("/steadiness/rail_calms_s")}
            />
          </>
        )}
      </Fields>
      <Lead>
        {limits.length ? `No longer than ${limits.join(", and ")}. ` : ""}
        {told?.settle_s != null ? `Wait ${seconds(told.settle_s)} after each move. ` : ""}
        {steady.held === "hand"
          ? ""
          : "On a support switch the stabiliser off, and release without touching."}
      </Lead>
    </>
  );
}
