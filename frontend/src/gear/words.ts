/** What kinds of gear are called, and the order in which they stand on the shelf. */
import type { ChainGear, Gear } from "../api/types";

export type Kind = Gear["kind"];
export type ChainKind = ChainGear["kind"];

export const KINDS: readonly { kind: Kind; one: string; many: string }[] = [
  { kind: "body", one: "body", many: "Bodies" },
  { kind: "lens", one: "lens", many: "Lenses" },
  { kind: "zoom", one: "zoom", many: "Zooms" },
  { kind: "objective", one: "objective", many: "Objectives" },
  { kind: "tube", one: "tube", many: "Tubes" },
  { kind: "bellows", one: "bellows", many: "Bellows" },
  { kind: "converter", one: "converter", many: "Converters" },
  { kind: "close_up", one: "close-up lens", many: "Close-up lenses" },
  { kind: "step_ring", one: "step ring", many: "Step rings" },
  { kind: "reversing_ring", one: "reversing ring", many: "Reversing rings" },
  { kind: "coupling_ring", one: "coupling ring", many: "Coupling rings" },
  { kind: "rail", one: "rail", many: "Rails" },
  { kind: "light", one: "light", many: "Lights" },
  { kind: "diffuser", one: "diffuser", many: "Diffusers" },
  { kind: "support", one: "support", many: "Supports" },
];

export const CHAIN_KINDS: readonly ChainKind[] = [
  "lens",
  "zoom",
  "objective",
  "tube",
  "bellows",
  "converter",
  "close_up",
  "step_ring",
  "reversing_ring",
  "coupling_ring",
];

export function wordsOf(kind: Kind) {
  const found = KINDS.find((each) => each.kind === kind);
  if (!found) throw new Error(`no words for gear of kind ${kind}`);
  return found;
}

export function isChainGear(gear: Gear): gear is ChainGear {
  return (CHAIN_KINDS as readonly string[]).includes(gear.kind);
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
  return `${kind.replace("_", "-")}-${crypto.randomUUID().slice(0, 8)}`;
}
