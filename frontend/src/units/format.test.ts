import { expect, it } from "vitest";
import {
  decimalsFor,
  doubted,
  editable,
  figures,
  fixed,
  length,
  lightLost,
  percent,
  seconds,
  size,
  lengthInColumn,
  unbroken,
} from "./format";
import { parseQuantity, type Kind } from "./parse";

it.each([
  [0, "0"],
  [12.3456, "12.3"],
  [1234.5, "1235"],
  [0.012345, "0.0123"],
  [100, "100"],
  [-0.82, "-0.82"],
  [NaN, "—"],
])("%f reads %s", (value, text) => expect(figures(value)).toBe(text));

it.each([
  [6.243, 0.0578, "mm", "6.24 ± 0.06 mm"],
  [6.243, 0.4, "mm", "6.2 ± 0.4 mm"],
  [0.31, 1.4, "mm", "0 ± 1 mm"],
  [25.4, 0.254, "in", "1.00 ± 0.01 in"],
  [6.243, 1e-7, "mm", "6.2430 ± 0.0001 mm"],
  [6.243, 0, "mm", "6.24 mm"],
] as const)("%f with a doubt of %f reads %s %s", (value, doubt, units, text) =>
  expect(doubted(value, doubt, units)).toBe(text),
);

it("lengths take the unit chosen, and micrometres where they belong", () => {
  expect(length(25.4, "in")).toBe("1 in");
  expect(length(25.4, "mm")).toBe("25.4 mm");
  expect(length(0.0432, "in")).toBe("43.2 µm");
  expect([length(-3e-7, "mm"), length(1e-9, "in")]).toEqual(["0 mm", "0 in"]);
  expect(size(72, 48, "mm")).toBe("72 × 48 mm");
});

it.each([
  [1.34, "−1.3"],
  [0.04, "0"],
  [0, "0"],
  [-0.04, "0"],
  [-0.66, "+0.7"],
])("%f stops of light lost read %s", (stops, text) => expect(lightLost(stops)).toBe(text));

it("all is said only of all", () => {
  expect(percent(0.9999)).toBe("99 %");
  expect(percent(1)).toBe("100 %");
  expect(percent(0.001)).toBe("<1 %");
});

it.each([
  [1 / 60, "1/60 s"],
  [1.12, "1.12 s"],
  [140.5, "2 min 21 s"],
  [3599, "1 h"],
])("%f s reads %s", (value, text) => expect(seconds(value)).toBe(text));

it("columns line up and never show a negative nought", () => {
  expect(fixed(-0.0001, "mm", 3)).toBe("0.000");
  expect(fixed(2.54, "in", 2)).toBe("0.100");
  expect(decimalsFor(0.82)).toBe(3);
  expect(decimalsFor(4)).toBe(2);
});

it.each<[number, Kind, "mm" | "in"]>([
  [34, "length", "mm"],
  [34, "length", "in"],
  [0.0045, "length", "mm"],
  [5.6, "fNumber", "mm"],
  [1 / 60, "time", "mm"],
  [90, "time", "mm"],
  [0.2, "percent", "mm"],
  [1.15, "ratio", "mm"],
])("what a field shows for %f (%s, %s) reads back the same", (value, kind, units) => {
  const parsed = parseQuantity(editable(value, kind, units), kind, units);
  expect("value" in parsed ? parsed.value / value : 0).toBeCloseTo(1, 3);
});

it.each([
  ["crops 4 %, 2 spare frames", "crops 4~%, 2 spare frames"],
  ["step 0.755 mm to 0.851 mm", "step 0.755~mm to 0.851~mm"],
  ["15 frames by rail at f/8 hold it, in 48.8 s", "15~frames by rail at f/8 hold it, in 48.8~s"],
  ["a lens of 3 minutes", "a lens of 3 minutes"],
])("%s keeps its numbers with their units", (sentence, kept) =>
  expect(unbroken(sentence).replaceAll("\u00a0", "~")).toBe(kept),
);

it.each([
  [0.5, "mm", "0.500 mm"],
  [0.5764, "mm", "0.576 mm"],
  [1.4, "mm", "1.40 mm"],
  [12, "mm", "12.0 mm"],
  [123, "mm", "123 mm"],
  [1234, "mm", "1234 mm"],
  [0.05, "mm", "50.0 µm"],
  [0.0999, "mm", "0.0999 mm"],
  [25.4, "in", "1.00 in"],
  [0, "mm", "0 mm"],
] as const)("%f (%s) stands in a column as %s", (mm, units, said) =>
  expect(lengthInColumn(mm, units)).toBe(said),
);
