import type { Kit } from "../../api/types";
import { nameOf } from "../../gear/words";

/** A rig that something was measured with, in the names of its pieces, body first as it is put together. */
export function rigWords(rig: readonly string[], kit: Kit): string {
  return [...rig]
    .reverse()
    .map((id) => {
      const turned = id.startsWith("~");
      const gear = kit.pieces.find((piece) => piece.gear.kit_id === id.replace(/^~/, ""))?.gear;
      return `${gear ? nameOf(gear) : "a piece no longer in the kit"}${turned ? " turned round" : ""}`;
    })
    .join(" · ");
}
