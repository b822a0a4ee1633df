import { describe, expect, it } from "vitest";
import { askedOf, isAsked, NOTHING, typedOf } from "./asking";

describe("what a trial is asked", () => {
  it("takes micrometres for millimetres and stops as they are spoken", () => {
    const asked = askedOf(
      {
        ...NOTHING,
        folder: " /cards/one ",
        pixelUm: "4,5",
        circleUm: "30",
        size: "1.5",
        stops: "f/2.8 4 f5,6",
      },
      "100 mm macro",
    );
    expect(asked).toMatchObject({
      folder: "/cards/one",
      name: "100 mm macro",
      pixel_pitch_mm: 0.0045,
      c_mm: 0.03,
      magnification: 1.5,
      f_numbers: [2.8, 4, 5.6],
    });
  });

  it("says what is missing at the field", () => {
    const problems = askedOf({ ...NOTHING, kind: "steps", perStep: "-3" }, "");
    expect(isAsked(problems)).toBe(false);
    expect(Object.keys(problems).sort()).toEqual(["folder", "perStep", "pixelUm", "size"]);
  });

  it("does not ask a rail for what belongs to a lens", () => {
    const asked = askedOf({ ...NOTHING, kind: "backlash", folder: "/c", step: "0.1", size: "nonsense" }, "");
    expect(asked).toMatchObject({ step_mm: 0.1, magnification: null });
  });

  it("comes back as it was typed", () => {
    const typed = {
      ...NOTHING,
      kind: "steps" as const,
      folder: "/c",
      size: "0.8",
      pixelUm: "3.76",
      perStep: "10",
    };
    const asked = askedOf(typed, "");
    expect(isAsked(asked) && typedOf(asked, null)).toEqual(typed);
  });
});
