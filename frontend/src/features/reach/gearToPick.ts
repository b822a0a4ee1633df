import type { Gear } from "../../api/types";
import { nameOf } from "../../gear/words";

export interface GearOption {
  id: string;
  label: string;
  gear: Gear;
}

/** What there is to pick from: the kit, what is on the table first, then generic gear that the kit has not. */
export function gearToPick(
  kit: readonly { carried?: boolean; gear: Gear }[] = [],
  shelf: readonly { gear: Gear }[] = [],
): GearOption[] {
  const own = [...kit].sort((a, b) => Number(b.carried !== false) - Number(a.carried !== false));
  const ids = new Set(own.map((each) => each.gear.kit_id));
  return [
    ...own.map((each) => ({
      id: `kit ${each.gear.kit_id}`,
      label: each.carried === false ? `${nameOf(each.gear)} (not on the table)` : nameOf(each.gear),
      gear: each.gear,
    })),
    ...shelf
      .filter((each) => !ids.has(each.gear.kit_id))
      .map((each) => ({
        id: `shelf ${each.gear.kit_id}`,
        label: `${nameOf(each.gear)} (generic)`,
        // Not of the kit: nothing may be kept under its id.
        gear: { ...each.gear, kit_id: null },
      })),
  ];
}
