/** What people type into a number field, into the contract's units. No optics here: only words and factors. */

export type Kind = "length" | "time" | "fNumber" | "ratio" | "percent" | "count" | "plain";
export type Parsed = { value: number } | { problem: string };

/** The keyboard that a tablet shows: with figures alone where nothing else is usually typed; 1/60 and 1/2 in need a stroke. */
export function keyboardFor(kind: Kind, unit: "mm" | "in"): "numeric" | "decimal" | "text" {
  if (kind === "count") return "numeric";
  return kind === "time" || (kind === "length" && unit === "in") ? "text" : "decimal";
}

const MM_PER: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  um: 1e-3,
  µm: 1e-3,
  μm: 1e-3,
  nm: 1e-6,
  in: 25.4,
  '"': 25.4,
  inch: 25.4,
  inches: 25.4,
  "″": 25.4,
  "''": 25.4,
  ft: 304.8,
  foot: 304.8,
  feet: 304.8,
  "'": 304.8,
  "′": 304.8,
  thou: 0.0254,
};
const SECONDS_PER: Record<string, number> = { ms: 1e-3, s: 1, sec: 1, min: 60, m: 60, h: 3600 };
const UNIT = String.raw`[a-zµμ"'′″]*`;
const NUMBER = String.raw`[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?`;

/**
 * Parse what was typed. A number without a unit is in `unit` (lengths only: mm or in).
 * `min`, `1/60`, `1:2`, `f/5.6`, `50 %`, `3in`, `450um` are understood where they belong.
 */
export function parseQuantity(text: string, kind: Kind, unit: "mm" | "in" = "mm"): Parsed {
  const typed = text.trim().toLowerCase().replace(/\s+/g, " ");
  if (typed === "") return { problem: "A number is needed here." };
  const value = parsers[kind](typed, unit);
  if (value === null) return { problem: `“${text.trim()}” is not ${expectations[kind]}` };
  if (!Number.isFinite(value)) return { problem: `“${text.trim()}” is more than any number can hold.` };
  return { value };
}

const expectations: Record<Kind, string> = {
  length: "a length. Type a number or a fraction, with mm, um, cm, in or ft after it if you like.",
  time: "a time. Type seconds, a fraction like 1/60, or 2min 30s.",
  fNumber: "an f-number. Type 5.6 or f/5.6.",
  ratio: "a size on the sensor. Type 0.5, 0.5× or 1:2.",
  percent: "a share. Type a number of per cent.",
  count: "a whole number.",
  plain: "a number.",
};

const parsers: Record<Kind, (typed: string, unit: "mm" | "in") => number | null> = {
  length: (typed, unit) => parseLength(typed, MM_PER[unit] as number),
  time: (typed) => parseTime(typed),
  fNumber: (typed) => number(typed.replace(/^f ?\/? ?/, "")),
  ratio: (typed) => parseRatio(typed),
  percent: (typed) => scaled(number(typed.replace(/ ?%$/, "")), 0.01),
  count: (typed) => (/^\d+$/.test(typed) ? Number(typed) : null),
  plain: (typed) => number(typed),
};

function number(typed: string): number | null {
  return new RegExp(`^${NUMBER}$`).test(typed) ? Number(typed.replace(",", ".")) : null;
}

function scaled(value: number | null, factor: number): number | null {
  return value === null ? null : value * factor;
}

const FRACTION = String.raw`(?:(\d+) )?(\d+) ?\/ ?(\d+)`;

/** `1/2`, `1 1/2 in`, `3/4"`, `1ft 2in`, `5'`, besides a number with its unit. */
function parseLength(typed: string, bare: number): number | null {
  const feet = /^(.*?(?:ft|foot|feet|['′])) ?(\S.*)$/.exec(typed);
  if (feet && !typed.endsWith("''")) {
    const parts = [feet[1], feet[2]].map((part) => lengthPart(part as string, bare));
    return parts.some((part) => part === null) ? null : (parts[0] as number) + (parts[1] as number);
  }
  return lengthPart(typed, bare);
}

function lengthPart(typed: string, bare: number): number | null {
  const fraction = new RegExp(`^${FRACTION} ?(${UNIT})$`).exec(typed);
  if (!fraction) return withUnit(typed, MM_PER, bare);
  const [, whole = "0", over, under, unit] = fraction;
  const factor = unit ? MM_PER[unit] : bare;
  if (factor === undefined || Number(under) === 0) return null;
  return (Number(whole) + Number(over) / Number(under)) * factor;
}

function withUnit(typed: string, factors: Record<string, number>, bare: number): number | null {
  const match = new RegExp(`^(${NUMBER}) ?(${UNIT})$`).exec(typed);
  if (!match) return null;
  const factor = match[2] === "" ? bare : factors[match[2] as string];
  return factor === undefined ? null : scaled(number(match[1] as string), factor);
}

function parseTime(typed: string): number | null {
  const fraction = /^(\d+) ?\/ ?(\d+) ?s?$/.exec(typed);
  if (fraction) return Number(fraction[2]) === 0 ? null : Number(fraction[1]) / Number(fraction[2]);
  const parts = typed.match(new RegExp(`${NUMBER} ?[a-z]*`, "g"));
  if (!parts || parts.join("").replace(/ /g, "") !== typed.replace(/ /g, "")) return null;
  return parts.reduce<number | null>((sum, part) => {
    const value = withUnit(part.trim(), SECONDS_PER, 1);
    return sum === null || value === null ? null : sum + value;
  }, 0);
}

function parseRatio(typed: string): number | null {
  const proportion = new RegExp(`^(${NUMBER}) ?: ?(${NUMBER})$`).exec(typed);
  if (proportion) {
    const [left, right] = [number(proportion[1] as string), number(proportion[2] as string)];
    return left === null || right === null || right === 0 ? null : left / right;
  }
  return number(typed.replace(/ ?[x×]$/, ""));
}
