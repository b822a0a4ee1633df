/** Changing the row of pieces: where a new one goes, and what was measured with the row as it then is. */
import type { ChainGear, Gear, Kit, Placed, Shot } from "../../api/types";
import { isLens } from "../../gear/words";

export type Row = Shot["rig"];

/** A piece as it goes into a row. */
export function placed(gear: ChainGear, reversed = false): Placed {
  return { gear, reversed, at_focal_length_mm: null, f_number: null };
}

/** Index of the lens whose aperture is set: the one nearest the body; the row's length when there is none. */
export function lensIndex(row: Row): number {
  const index = row.findLastIndex((each) => isLens(each.gear));
  return index < 0 ? row.length : index;
}

/** Index of the lens, where the row has one and no second; null otherwise. */
export function onlyLens(row: Row): number | null {
  const at = lensIndex(row);
  const kind = row[at]?.gear.kind;
  return (kind === "lens" || kind === "zoom") && row.filter((each) => isLens(each.gear)).length === 1
    ? at
    : null;
}

/** The row with another lens in the place of one, standing as that did. */
export function withLens(row: Row, at: number, gear: ChainGear): Row {
  return row.map((each, index) => (index === at ? { ...each, gear, at_focal_length_mm: null } : each));
}

/** The row with a new piece at the place where it usually goes. */
export function withPiece(row: Row, gear: ChainGear): Row {
  const lens = lensIndex(row);
  const hasLens = lens < row.length;
  const put = (index: number, piece: Placed) => [...row.slice(0, index), piece, ...row.slice(index)];
  switch (gear.kind) {
    case "lens":
    case "zoom":
      // A second lens faces the first.
      return hasLens && row[lens]?.gear.kind !== "objective"
        ? put(0, placed(gear, true))
        : put(row.length, placed(gear));
    case "objective":
      return put(0, placed(gear));
    case "close_up":
    case "step_ring":
    case "coupling_ring":
      return put(Math.min(lens, row.length), placed(gear));
    case "converter":
      return put(row.length, placed(gear));
    default:
      return put(Math.min(lens + 1, row.length), placed(gear));
  }
}

/** The row with one piece moved to another index. */
export function moved(row: Row, from: number, to: number): Row {
  const piece = row[from];
  if (!piece || to < 0 || to >= row.length) return row;
  const rest = row.filter((_, index) => index !== from);
  return [...rest.slice(0, to), piece, ...rest.slice(to)];
}

/** The row with pieces put before or after another one, as a drag leaves them. */
export function dropped(row: Row, moving: readonly number[], target: number, where: "before" | "after"): Row {
  const pieces = moving.flatMap((index) => row[index] ?? []);
  const anchor = row[target];
  if (!anchor || pieces.includes(anchor)) return row;
  const rest = row.filter((_, index) => !moving.includes(index));
  const at = rest.indexOf(anchor) + (where === "after" ? 1 : 0);
  return [...rest.slice(0, at), ...pieces, ...rest.slice(at)];
}

/** By which a measured size is kept: the kit's pieces, subject to sensor, the body last. */
export function rowKey(row: Row, body: Gear): string[] | null {
  const ids = [
    ...row.map((each) => (each.reversed ? "~" : "") + (each.gear.kit_id ?? "")),
    body.kit_id ?? "",
  ];
  return ids.every((id) => id.replace("~", "") !== "") ? ids : null;
}

/** The shot with another row or body, and with what was measured with just those pieces. */
export function withRig(shot: Shot, change: Partial<Pick<Shot, "rig" | "body">>, kit: Kit | undefined): Shot {
  const next = { ...shot, ...change };
  const key = rowKey(next.rig, next.body)?.join(" ");
  const known = key === undefined ? undefined : kit?.measured_rigs.find((each) => each.rig.join(" ") === key);
  const measured = known
    ? { magnification: known.magnification, uncertainty: known.uncertainty, modelled: known.modelled }
    : null;
  const crop_mode = next.body.crop_modes.some((mode) => mode.name === next.crop_mode) ? next.crop_mode : null;
  return { ...next, measured, crop_mode };
}
