import { describe, expect, it } from "vitest";
import { fittingScale, makeViewport, niceStep, onScaleOf, ruleTicks } from "./viewport";

describe("the viewport", () => {
  it("has one scale for both directions", () => {
    const view = makeViewport(900, 300, 10, 6);
    expect(view.x(11) - view.x(10)).toBeCloseTo(6);
    expect(view.y(0) - view.y(1)).toBeCloseTo(6);
  });

  it("puts its centre in the middle and the axis half way down", () => {
    const view = makeViewport(900, 300, 10, 6);
    expect(view.x(10)).toBeCloseTo(450);
    expect(view.y(0)).toBe(150);
  });

  it("fits the whole frame, or the whole depth when that is longer", () => {
    expect(fittingScale(900, 300, 48, 4, 1) * 48).toBeLessThan(300);
    expect(fittingScale(900, 300, 2, 400, 1) * 400).toBeLessThan(900);
  });
});

describe("the rule", () => {
  it.each([0.02, 0.7, 6, 55, 4000])("labels stand at least 56 px apart at %f px a mm", (pxPerMm) => {
    const view = makeViewport(900, 300, 0, pxPerMm);
    const labels = ruleTicks(view, 1).filter((tick) => tick.label !== null);
    expect(labels.length).toBeGreaterThan(3);
    expect(view.x(labels[1]?.place ?? 0) - view.x(labels[0]?.place ?? 0)).toBeGreaterThanOrEqual(55.9);
  });

  it("stands on whole inches when asked for inches", () => {
    const view = makeViewport(900, 300, 0, 3);
    const one = ruleTicks(view, 25.4).find((tick) => tick.label === "1" || tick.label === "1.0");
    expect(one?.place).toBeCloseTo(25.4);
  });

  it("calls nought nought", () => {
    const labels = ruleTicks(makeViewport(900, 300, 0.001, 50000), 1).map((tick) => tick.label);
    expect(labels).toContain("0");
    expect(labels.some((label) => label?.startsWith("-0.") && Number(label) === 0)).toBe(false);
  });

  it.each([
    [0.7, 1],
    [1, 1],
    [1.1, 2],
    [3, 5],
    [60, 100],
  ])("the step not below %f is %f", (least, step) => expect(niceStep(least)).toBeCloseTo(step));
});

it("shares another drawing's scale: the same mm stands on the same pixel", () => {
  const view = makeViewport(900, 300, 5, 12);
  const shared = onScaleOf(view, { atZero: 200, pxPerMm: 30 });
  expect(shared.x(0)).toBeCloseTo(200, 9);
  expect(shared.x(10)).toBeCloseTo(500, 9);
  expect(shared.width).toBe(view.width);
});
