import type { Kit, Shot } from "../../api/types";

/**
 * A shot to start from: with the rig of the one that was worked on last; else with the first body and lens of the kit, or
 * of the generic shelf. Everything else is at its default.
 */
export function newShot(kit: Kit, shelf: Kit, name: string, last: Shot | null = null): Shot {
  const pieces = [...kit.pieces, ...shelf.pieces].map((piece) => piece.gear);
  const body = pieces.find((gear) => gear.kind === "body");
  const lens = pieces.find((gear) => gear.kind === "lens");
  if (!body || !lens) throw new Error("There is no body or no lens to start with.");
  const shot: Pick<
    Shot,
    "format" | "version" | "name" | "subject" | "body" | "rig" | "framing" | "aperture"
  > = {
    format: "just-plane/shot",
    version: 2,
    name,
    subject: { depth_mm: 10 } as Shot["subject"],
    body,
    rig: [{ gear: lens } as Shot["rig"][number]],
    framing: { by: "frame_width", frame_width_mm: 72 },
    aperture: { f_number: 8, reading: "marked" },
  };
  return { ...shot, ...(last ? rigOf(last) : {}) } as Shot; // what is left out has a default in the contract
}

/** What stands on the table is still there for the next shot. */
function rigOf({ body, crop_mode, camera_on_its_side, rig, measured, framing }: Shot) {
  return { body, crop_mode, camera_on_its_side, rig, measured, framing };
}

const LONGEST_NAME = 120;

/** The same shot under a name that says so; what was decided and put aside belongs to the one it came from. */
export function copyOf(shot: Shot): Shot {
  const name = `${shot.name.slice(0, LONGEST_NAME - 5)} copy`;
  return { ...shot, name, chosen_way: null, put_aside: [], pinned: [], beside: [] };
}
