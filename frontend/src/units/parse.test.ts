import { describe, expect, it } from "vitest";
import { keyboardFor, parseQuantity, type Kind } from "./parse";

function value(text: string, kind: Kind, unit: "mm" | "in" = "mm") {
  const parsed = parseQuantity(text, kind, unit);
  if ("problem" in parsed) throw new Error(parsed.problem);
  return parsed.value;
}

describe("what people type is understood", () => {
  it.each([
    ["12", 12],
    ["12,5", 12.5],
    [" .5 mm", 0.5],
    ["3in", 76.2],
    ['3"', 76.2],
    ["450um", 0.45],
    ["450 µm", 0.45],
    ["550nm", 0.00055],
    ["1.2 m", 1200],
    ["2e2", 200],
    ["1/2 in", 12.7],
    ["1 1/2 in", 38.1],
    ['3/4"', 19.05],
    ["1ft", 304.8],
    ["5'", 1524],
    ["1ft 2in", 355.6],
    ["5' 3 1/2\"", 1612.9],
    ["1/2", 0.5],
  ])("%s is %f mm", (text, mm) => expect(value(text, "length")).toBeCloseTo(mm, 12));

  it("a bare fraction is in the unit shown", () => {
    expect(value("1/2", "length", "in")).toBeCloseTo(12.7);
    expect(value("1 3/8", "length", "in")).toBeCloseTo(34.925);
  });

  it("a bare length is in the unit shown", () => expect(value("2", "length", "in")).toBeCloseTo(50.8));

  it.each([
    ["1/60", 1 / 60],
    ["0.5s", 0.5],
    ["90", 90],
    ["2min 30s", 150],
    ["1h", 3600],
    ["250 ms", 0.25],
  ])("%s is %f s", (text, s) => expect(value(text, "time")).toBeCloseTo(s, 12));

  it.each([
    ["f/5.6", 5.6],
    ["F5.6", 5.6],
    ["11", 11],
  ])("%s is an f-number", (text, n) => expect(value(text, "fNumber")).toBe(n));

  it.each([
    ["1:2", 0.5],
    ["2x", 2],
    ["0.5×", 0.5],
  ])("%s is a size", (text, m) => expect(value(text, "ratio")).toBe(m));

  it("per cent is a share", () => expect(value("20 %", "percent")).toBeCloseTo(0.2));
});

describe("what cannot be read is refused in a sentence", () => {
  it.each<[string, Kind]>([
    ["", "length"],
    ["wide", "length"],
    ["3 furlongs", "length"],
    ["1/0", "time"],
    ["1/0 in", "length"],
    ["1ft 2 furlongs", "length"],
    ["1:0", "ratio"],
    ["2.5", "count"],
    ["1e999", "length"],
    ["NaN", "plain"],
    ["5 6", "fNumber"],
  ])("%s", (text, kind) => {
    const parsed = parseQuantity(text, kind);
    expect("problem" in parsed && parsed.problem).toMatch(/\.$/);
  });
});

it("shows figures alone where nothing else is usually typed", () => {
  expect(keyboardFor("count", "mm")).toBe("numeric");
  expect(keyboardFor("length", "mm")).toBe("decimal");
  expect(keyboardFor("length", "in")).toBe("text");
  expect(keyboardFor("time", "mm")).toBe("text");
  expect(keyboardFor("fNumber", "in")).toBe("decimal");
});
