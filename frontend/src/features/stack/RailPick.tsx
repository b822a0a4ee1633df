import { useCallback, useMemo } from "react";
import type { Gear, KeptKit, Shot } from "../../api/types";
import { Button } from "../../controls/Button";
import { Pick } from "../../controls/Pick";
import { useBench } from "../../shot/ShotContext";
import { nameOf } from "../../gear/words";
import { useKit } from "../../gear/useKit";

/** A rail of the kit: its numbers are put into the shot, where they can still be changed. */
export function RailPick() {
  const { shot, edit } = useBench();
  const kit = useKit().data;
  const rails = useMemo(
    () => (kit?.kit.pieces ?? []).map((piece) => piece.gear).filter((gear) => gear.kind === "rail"),
    [kit],
  );
  const options = useMemo(
    () => rails.map((rail) => ({ id: rail.kit_id ?? "", label: nameOf(rail) })),
    [rails],
  );
  const take = useCallback(
    (id: string) => {
      const rail = rails.find((each) => each.kit_id === id);
      if (rail) edit((draft) => withRail(draft, rail, kit?.rails));
    },
    [rails, kit, edit],
  );
  const chosen = rails.find((rail) => rail.kit_id === shot.stack.rail_kit_id);
  const anew = chosen ? withRail(shot, chosen, kit?.rails) : shot;
  const differs =
    JSON.stringify([anew.stack, anew.steadiness]) !== JSON.stringify([shot.stack, shot.steadiness]);
  return (
    <>
      <Pick
        label="Rail"
        value={chosen?.kit_id ?? null}
        placeholder={shot.stack.rail_name || "own numbers"}
        options={options}
        onChange={take}
      />
      {chosen?.kit_id != null && differs ? (
        <Button onPress={() => chosen.kit_id != null && take(chosen.kit_id)}>Take its numbers anew</Button>
      ) : null}
    </>
  );
}

/** The shot with a rail's numbers in it; what was measured of its swing takes the place of what stood there. */
function withRail(
  shot: Shot,
  rail: Extract<Gear, { kind: "rail" }>,
  known: KeptKit["rails"] | undefined,
): Shot {
  const follows = known?.find((each) => each.kit_id === rail.kit_id);
  return {
    ...shot,
    stack: {
      ...shot.stack,
      rail_name: rail.name,
      rail_kit_id: rail.kit_id,
      rail_smallest_step_mm: follows?.smallest_step_mm ?? null,
      rail_travel_mm: rail.travel_mm,
      rail_mm_per_turn: follows?.mm_per_turn ?? null,
      rail_divisions: rail.divisions,
      rail_play_mm: rail.backlash_mm,
    },
    steadiness: {
      ...shot.steadiness,
      rail_swings_um: rail.measured_swing_um ?? shot.steadiness.rail_swings_um,
      rail_calms_s: rail.measured_calms_s ?? shot.steadiness.rail_calms_s,
    },
  };
}
