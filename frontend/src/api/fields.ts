/** What the contract says of each field that a person fills in; written from it (`make api`), never by hand. */
import written from "./fields.json";

export interface FieldFacts {
  title: string;
  kind: "length" | "time" | "fNumber" | "ratio" | "percent" | "count" | "plain" | "words" | "yes" | "rows";
  /** It may be left empty (null). */
  empty?: boolean;
  default?: unknown;
  least?: number;
  most?: number;
  /** Characters of a text, members of a list. */
  longest?: number;
  options?: readonly (string | number)[];
}

const shot = written.shot.shot as Record<string, FieldFacts | undefined>;
const gear = written.gear as Record<string, Record<string, FieldFacts | undefined>>;

/** Facts of a field of the shot, by JSON pointer. */
export function shotField(pointer: string): FieldFacts {
  return there(shot[pointer], pointer);
}

/** How many a list of the shot may hold, by JSON pointer. */
export function mostOf(pointer: string): number {
  return shotField(pointer).longest ?? Infinity;
}

/** Facts of a field of a kind of gear, by the path in the piece. */
export function gearField(kind: string, path: readonly string[]): FieldFacts {
  const pointer = `/${path.join("/")}`;
  return there(gear[kind]?.[pointer], `${kind} ${pointer}`);
}

function there(facts: FieldFacts | undefined, name: string): FieldFacts {
  if (!facts) throw new Error(`The contract has no field ${name}.`);
  return facts;
}

/** A step that stays within what the field may be. */
export function within<Rest extends unknown[]>(
  facts: FieldFacts,
  step: (value: number, ...rest: Rest) => number,
): (value: number, ...rest: Rest) => number {
  return (value, ...rest) =>
    Math.min(Math.max(step(value, ...rest), facts.least ?? -Infinity), facts.most ?? Infinity);
}
