import { useCallback, useMemo } from "react";
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
      if (!rail) return;
      const follows = kit?.rails.find((each) => each.kit_id === id);
      edit((draft) => ({
        ...draft,
        stack: {
          ...draft.stack,
          rail_name: rail.name,
          rail_kit_id: id,
          rail_smallest_step_mm: follows?.smallest_step_mm ?? null,
          rail_travel_mm: rail.travel_mm,
          rail_mm_per_turn: follows?.mm_per_turn ?? null,
          rail_divisions: rail.divisions,
          rail_play_mm: rail.backlash_mm,
        },
        // What was measured of it takes the place of what stood there; what was not leaves it alone.
        steadiness: {
          ...draft.steadiness,
          rail_swings_um: rail.measured_swing_um ?? draft.steadiness.rail_swings_um,
          rail_calms_s: rail.measured_calms_s ?? draft.steadiness.rail_calms_s,
        },
      }));
    },
    [rails, kit, edit],
  );
  return (
    <Pick
      label="Rail"
      value={
        rails.some((rail) => rail.kit_id === shot.stack.rail_kit_id) ? (shot.stack.rail_kit_id ?? null) : null
      }
      placeholder={shot.stack.rail_name || "own numbers"}
      options={options}
      onChange={take}
    />
  );
}
