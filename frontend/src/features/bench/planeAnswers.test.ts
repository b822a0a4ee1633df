import { describe, expect, it } from "vitest";
import type { Plan, PlaneSection, Shot, WayAnswer } from "../../api/types";
import { tapeAnswers } from "./tapeAnswers";

const shot = {
  subject: { depth_mm: 34, hold_still_s: null },
  aperture: { f_number: 8 },
} as unknown as Shot;

function told(plane: Partial<PlaneSection> | null, more: Partial<Plan> = {}, way: WayAnswer | null = null) {
  const plan = {
    findings: [],
    ways: [],
    depth_mm: 51.6,
    depth_from_points: false,
    plane: plane && { points: [], angle_deg: null, ...plane },
    ...more,
  } as unknown as Plan;
  return tapeAnswers(shot, plan, way, [], "mm");
}

const point = { id: "a" } as PlaneSection["points"][number];
const setting = { tilt_deg: 8.214, faces: "straight down" } as NonNullable<PlaneSection["setting"]>;

describe("the plane on the tape", () => {
  it("says that there are no points, and whether the lens tilts", () => {
    expect(told({ points: [] }).plane).toEqual({ answer: "no points", small: "", trouble: false });
    expect(told({ points: [], steepest_deg: 42 }).plane.small).toBe("this lens tilts");
    expect(told(null).plane.answer).toBe("no points");
  });
  it("says the tilt and where the lens faces", () =>
    expect(told({ points: [point], setting, angle_deg: 36 }).plane).toEqual({
      answer: "tilt 8.2°",
      small: "straight down",
      trouble: false,
    }));
  it("says when it is all that the lens has", () =>
    expect(told({ points: [point], setting, angle_deg: 36, limited: true }).plane.small).toBe("all it has"));
  it("says the angle where nothing tilts", () =>
    expect(told({ points: [point], setting: null, angle_deg: 36.4 }).plane).toMatchObject({
      answer: "36° from square",
      small: "no tilt here",
    }));
  it("says that no tilt is needed", () =>
    expect(told({ points: [point], setting: { ...setting, tilt_deg: 0.01 }, angle_deg: 0 }).plane.small).toBe(
      "no tilt needed",
    ));
  it("counts points that make no plane yet", () => {
    expect(told({ points: [point], angle_deg: null }).plane).toMatchObject({
      answer: "1 point",
      small: "no plane yet",
    });
    expect(told({ points: [point, point], angle_deg: null }).plane.answer).toBe("2 points");
  });
  it("says trouble at a point", () => {
    const findings = [
      { severity: "trouble", field: "/plane/points", code: "points.in_line", message: "", remedy: "" },
    ];
    expect(told({ points: [point] }, { findings } as Partial<Plan>).plane).toMatchObject({
      small: "needs attention",
      trouble: true,
    });
  });
});

it("the depth is that of the points where they are read", () => {
  expect(told({}).subject.answer).toBe("34 mm deep");
  expect(told({}, { depth_from_points: true }).subject.answer).toBe("51.6 mm deep");
});

it("a tilted stack says its own frames", () => {
  const way = {
    id: "tilt_rail",
    kind: "rail",
    frames: 4,
    stack: { step_mm: 2.5 },
  } as unknown as WayAnswer;
  const stack = told({}, { ways: [way] }, { ...way, stack: { ...way.stack, frames: 4 } } as WayAnswer).stack;
  expect(stack.answer).toBe("4 frames");
  expect(stack.small).toBe("step 2.5 mm");
});
