import { describe, expect, it } from "vitest";
import { valueAt, withValueAt } from "../api/pointer";
import { emptyGear, missingFrom } from "./empty";
import { pointerOf } from "./fields";
import { KINDS } from "./words";

describe("a piece that is only begun", () => {
  it("holds nobody's numbers: a lens asks for its own", () => {
    const lens = emptyGear("lens");
    expect(missingFrom(lens).map(pointerOf)).toEqual([
      "/focal_length_mm",
      "/closest_magnification",
      "/barrel_mm",
      "/widest_f_number",
      "/narrowest_f_number",
    ]);
    expect(lens).toMatchObject({
      kind: "lens",
      name: "",
      stops: "third",
      tilt_deg: 0,
      smallest_magnification: null,
    });
  });

  it("asks for both ends of a zoom, but not for a size at each", () => {
    const missing = missingFrom(emptyGear("zoom")).map(pointerOf);
    expect(missing).toContain("/short/focal_length_mm");
    expect(missing).toContain("/long/minimum_focus_distance_mm");
    expect(missing).not.toContain("/short/closest_magnification");
  });

  it.each(KINDS.map(({ kind }) => kind))("is whole when what is missing is typed: %s", (kind) => {
    let piece = emptyGear(kind);
    for (const field of missingFrom(piece)) piece = withValueAt(piece, pointerOf(field), 1);
    expect(missingFrom(piece)).toEqual([]);
    expect(valueAt(piece, "/kit_id")).toMatch(/^[0-9a-z-]+$/);
  });
});
