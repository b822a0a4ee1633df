/** A piece of gear that is only begun: what the contract assumes stands in it, every other number is still empty. */
import written from "../api/fields.json";
import { gearField, type FieldFacts } from "../api/fields";
import { valueAt, withValueAt } from "../api/pointer";
import type { Gear } from "../api/types";
import { fieldsOf, pointerOf, type GearField } from "./fields";
import { newKitId, type Kind } from "./words";

/** A piece of a kind with nothing typed yet. Not whole: see `missingFrom` before it goes into a kit. */
export function emptyGear(kind: Kind): Gear {
  const facts = written.gear[kind] as Record<string, FieldFacts>;
  let piece: unknown = { kind, kit_id: newKitId(kind), ...(kind === "body" ? { crop_modes: [] } : {}) };
  for (const [pointer, field] of Object.entries(facts)) {
    if (pointer === "/kind" || pointer === "/kit_id" || field.kind === undefined) continue;
    piece = withValueAt(piece, pointer, field.default ?? null);
  }
  return piece as Gear;
}

/** The numbers without which a piece is not whole, in the order of the form. */
export function missingFrom(gear: Gear): GearField[] {
  return fieldsOf(gear.kind).filter((field) => {
    const facts = gearField(gear.kind, field.at);
    return !facts.empty && facts.default === undefined && valueAt(gear, pointerOf(field)) == null;
  });
}
