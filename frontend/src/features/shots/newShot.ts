import type { Shelf, Shot } from "../../api/types";

/** A shot to start from: the first body and lens of the shelf, life-like numbers, everything else at its default. */
export function newShot(shelf: Shelf, name: string): Shot {
  const [body, lens] = [shelf.bodies[0], shelf.lenses[0]];
  if (!body || !lens) throw new Error("The starter shelf is empty.");
  return {
    format: "just-plane/shot",
    version: 1,
    name,
    subject: { depth_mm: 10 },
    body,
    lens,
    tubes_mm: [],
    framing: { by: "frame_width", frame_width_mm: 72 },
    aperture: { f_number: 8, reading: "marked" },
  } as Shot;
}
