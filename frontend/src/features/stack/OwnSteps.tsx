import { useState } from "react";
import { Fold } from "../../controls/Fold";
import { by, byShare } from "../../controls/steps";
import { Fields, Lead } from "../../controls/panel";
import { usePreferences } from "../../look/preferences";
import { ShotQuantity } from "../../shot/fields";
import { useBench } from "../../shot/ShotContext";

/** A count or a step that someone has already: what it covers, and which gaps stay. */
export function OwnSteps({ kind }: { kind: "rail" | "ring" | "hand" }) {
  const { shot } = useBench();
  const { units } = usePreferences();
  const { own_frames, own_step_mm, own_step_marks, own_step_units, own_first_mm } = shot.stack;
  const given = [own_frames, own_step_mm, own_step_marks, own_step_units, own_first_mm].some(
    (one) => one != null,
  );
  const [open, setOpen] = useState(given);
  return (
    <Fold title="Own count and step" isOpen={open} onOpenChange={setOpen}>
      <Fields>
        <ShotQuantity at="/stack/own_frames" step={by(1, 5, 1)} emptyHint="as it takes" />
        {kind === "hand" ? null : (
          <>
            <ShotQuantity at="/stack/own_step_mm" step={byShare} emptyHint="worked out" />
            {kind === "rail" ? (
              <ShotQuantity at="/stack/own_step_marks" step={by(0.5, 5, 0.5)} emptyHint={`in ${units}`} />
            ) : (
              <ShotQuantity at="/stack/own_step_units" step={by(1, 5, 1)} emptyHint={`in ${units}`} />
            )}
            <ShotQuantity at="/stack/own_first_mm" step={by(0.1, 1)} emptyHint="0" />
          </>
        )}
      </Fields>
      <Lead>
        {kind === "hand"
          ? "Left empty: three to six, as the depth asks."
          : "What is left empty is worked out. The rule shows what no frame holds."}
      </Lead>
    </Fold>
  );
}
