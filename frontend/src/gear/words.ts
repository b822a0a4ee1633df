/** What kinds of gear are called, and the order in which they stand on the shelf. */
import written from "../api/fields.json";
import { newHex } from "../look/ids";
import type { ChainGear, Gear } from "../api/types";

export type Kind = Gear["kind"];
export type ChainKind = ChainGear["kind"];

/** In the order of the shelf, as the contract has them. */
export const KINDS = written.kinds as readonly { kind: Kind; one: string; many: string; chain: boolean }[];

export function wordsOf(kind: Kind) {
  const found = KINDS.find((each) => each.kind === kind);
  if (!found) throw new Error(`no words for gear of kind ${kind}`);
  return found;
}

export function isChainGear(gear: Gear): gear is ChainGear {
  return wordsOf(gear.kind).chain;
}

export function isLens(gear: Gear): boolean {
  return gear.kind === "lens" || gear.kind === "zoom" || gear.kind === "objective";
}

/** The piece's own name, or what it is. */
export function nameOf(gear: Gear): string {
  return gear.name || `${wordsOf(gear.kind).one} without a name`;
}

/** An id that no other piece has. */
export function newKitId(kind: Kind): string {
  return `${kind.replace("_", "-")}-${newHex().slice(0, 8)}`;
}
