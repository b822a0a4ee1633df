import { expect, it } from "vitest";
import { along, by, byShare, byThirds } from "./steps";

it("equal steps land on whole steps and stay tidy", () => {
  expect(by(0.1, 1)(0.3, 1, false)).toBe(0.4);
  expect(by(0.1, 1)(0.34, 1, false)).toBe(0.4);
  expect(by(0.1, 1)(2, -1, true)).toBe(1);
  expect(by(1, 5, 1)(1, -1, false)).toBe(1);
});

it("steps by share follow the size of the value", () => {
  expect(byShare(34, 1, false)).toBe(35);
  expect(byShare(0.5, 1, false)).toBeCloseTo(0.51);
  expect(byShare(34, 1, true)).toBe(40);
});

it("stops go one by one along the lens, and stay at its ends", () => {
  const stops = [2.8, 3.2, 4, 5.6];
  expect(along(stops)(2.8, 1, false)).toBe(3.2);
  expect(along(stops)(3.5, -1, false)).toBe(3.2);
  expect(along(stops)(5.6, 1, false)).toBe(5.6);
  expect(along(stops)(2.8, 1, true)).toBe(5.6);
});

it("three thirds make a stop", () => {
  const step = (t: number) => byThirds(t, 1, false);
  expect(step(step(step(0.25)))).toBeCloseTo(0.5);
});
