/** Numbers as they are read at the table. */
import type { Units } from "./units";

const MM_PER_INCH = 25.4;
/** mm under which a length is none: half a nanometre. */
const NOTHING = 5e-7;

/** Up to `digits` significant digits, without exponent and without trailing noughts. */
export function figures(value: number, digits = 3): string {
  if (!Number.isFinite(value)) return "—";
  if (value === 0) return "0";
  const whole = Math.max(Math.floor(Math.log10(Math.abs(value))) + 1, 1);
  const decimals = Math.min(Math.max(digits - whole, 0), 6);
  const small =
    Math.abs(value) < 1 ? Math.min(Math.ceil(-Math.log10(Math.abs(value))) + digits - 1, 8) : decimals;
  const text = value.toFixed(Math.max(decimals, small));
  return text.includes(".") ? text.replace(/\.?0+$/, "") : text;
}

/** A length with its unit; micrometres below a tenth of a millimetre. */
export function length(exact: number, units: Units, digits = 3): string {
  const mm = Math.abs(exact) < NOTHING ? 0 : exact;
  if (mm !== 0 && Math.abs(mm) < 0.0995) return `${figures(mm * 1000, digits)} µm`;
  return units === "in" ? `${figures(mm / MM_PER_INCH, digits)} in` : `${figures(mm, digits)} mm`;
}

/** A length in a column of such: always three significant digits, so that they line up. */
export function lengthInColumn(mm: number, units: Units): string {
  const [number = "", unit = ""] = length(mm, units).split(" ");
  const value = Number(number);
  return value !== 0 && Math.abs(value) < 100 ? `${value.toPrecision(3)} ${unit}` : `${number} ${unit}`;
}

/** A length with how unsure it is: both in one unit, as fine as the doubt is worth telling. */
export function doubted(mm: number, doubtMm: number, units: Units): string {
  const factor = units === "in" ? 1 / MM_PER_INCH : 1;
  const doubt = doubtMm * factor;
  if (!(doubt > 0) || !Number.isFinite(doubt)) return length(mm, units);
  const decimals = Math.min(Math.max(Math.ceil(-Math.log10(doubt)), 0), 4);
  const told = Math.max(doubt, 10 ** -decimals);
  return `${(mm * factor).toFixed(decimals)} ± ${told.toFixed(decimals)} ${units}`;
}

/** A bare number of mm or inches with a fixed count of decimals, for columns that line up. */
export function fixed(mm: number, units: Units, decimals: number): string {
  const text = (units === "in" ? mm / MM_PER_INCH : mm).toFixed(units === "in" ? decimals + 1 : decimals);
  return /^-0\.?0*$/.test(text) ? text.slice(1) : text;
}

/** Decimals of a mm that still tell steps of this length apart. */
export function decimalsFor(stepMm: number): number {
  return stepMm > 0 ? Math.min(Math.max(Math.ceil(-Math.log10(stepMm)) + 2, 1), 5) : 2;
}

/** Two lengths as one size, the unit said once. */
export function size(widthMm: number, heightMm: number, units: Units): string {
  const factor = units === "in" ? 1 / MM_PER_INCH : 1;
  return `${figures(widthMm * factor)} × ${figures(heightMm * factor)} ${units}`;
}

const NUMBER_AND_UNIT = /(\d) (?=(?:mm|µm|in|m|s|min|h|px|frames?)\b|[%×°])/g;

/** A sentence whose numbers stay on one line with their units: each is joined to its own by a space that does not break. */
export function unbroken(sentence: string): string {
  return sentence.replace(NUMBER_AND_UNIT, "$1\u00a0");
}

export function stop(fNumber: number): string {
  return `f/${figures(fNumber)}`;
}

/** Light lost in stops, as it stands in a column: "−1.3"; "0" where it rounds to none. */
export function lightLost(stops: number): string {
  const rounded = stops.toFixed(1);
  return Number(rounded) === 0 ? "0" : rounded.startsWith("-") ? `+${rounded.slice(1)}` : `−${rounded}`;
}

export function times(magnification: number): string {
  return `${figures(magnification)}×`;
}

export function percent(share: number): string {
  const rounded = Math.round(share * 100);
  if (rounded === 100 && share < 1 - 1e-9) return "99 %";
  if (rounded === 0 && share > 0) return "<1 %";
  return `${rounded} %`;
}

export function seconds(value: number): string {
  if (value < 0.3) return value > 1e-9 ? `1/${Math.round(1 / value)} s` : "0 s";
  if (value < 59.5) return `${figures(value)} s`;
  if (value < 3570) return twoParts(Math.round(value), "min", "s");
  return twoParts(Math.round(value / 60), "h", "min");
}

function twoParts(count: number, large: string, small: string): string {
  const rest = count % 60;
  return `${Math.floor(count / 60)} ${large}` + (rest ? ` ${String(rest).padStart(2, "0")} ${small}` : "");
}

export function frames(count: number): string {
  return `${count} ${count === 1 ? "frame" : "frames"}`;
}

/** What an input shows for a value in the contract's unit. */
export function editable(value: number, kind: string, units: Units): string {
  if (kind === "length") return figures(units === "in" ? value / MM_PER_INCH : value, 6);
  if (kind === "fNumber") return `f/${figures(value, 4)}`;
  if (kind === "percent") return figures(value * 100, 4);
  if (kind === "time") return value < 0.3 && value > 1e-6 ? `1/${figures(1 / value, 3)}` : figures(value, 5);
  return figures(value, 6);
}
