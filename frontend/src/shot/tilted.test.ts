import { expect, it } from "vitest";
import type { PlaneSection, PointAnswer, WayAnswer } from "../api/types";
import { atStopOf, blurIn, isTilted, lastSteps } from "./tilted";

const covering = { blur_share: 0.4, allowed_blur_um: 20 };
const plane = { setting: {}, allowed_blur_um: 34, covering } as unknown as PlaneSection;
const point = { blur_um: 50 } as PointAnswer;
const way = (id: string) => ({ id }) as WayAnswer;

it("at the stop that holds every point, blur and what may blur are those of that stop", () => {
  expect(blurIn(way("tilt_best"), point, plane)).toBe(20);
  expect(atStopOf(way("tilt_best"), plane).allowed_blur_um).toBe(20);
});

it("every other tilted way is drawn at the stop in use", () => {
  for (const id of ["tilt", "tilt_rail", "tilt_ring"]) {
    expect(isTilted(way(id))).toBe(true);
    expect(blurIn(way(id), point, plane)).toBe(50);
    expect(atStopOf(way(id), plane).allowed_blur_um).toBe(34);
  }
});

it("a way without tilt has no blur by the points", () => {
  expect(blurIn(way("one"), point, plane)).toBeNull();
  expect(blurIn(way("tilt"), point, { ...plane, setting: null } as PlaneSection)).toBeNull();
});

it("the last step sets the stop of the way looked at", () => {
  const steps = { last_steps: ["Set the rail to 3 mm.", "Set f/8."] } as unknown as PlaneSection;
  const narrow = { id: "tilt_best", frames: 1, f_number: 22 } as WayAnswer;
  expect(lastSteps(narrow, steps)).toEqual(["Set the rail to 3 mm.", "Set f/22."]);
  expect(lastSteps(way("tilt_ring"), steps)).toBe(steps.last_steps);
});
