/** What a trial is asked, from what is typed: pure. */
import type { TrialAsked, TrialKind } from "../../api/types";

export interface Typed {
  kind: TrialKind;
  folder: string;
  kitId: string | null;
  target: TrialAsked["target"];
  stops: string;
  size: string;
  pixelUm: string;
  circleUm: string;
  angle: string;
  step: string;
  perStep: string;
  unit: string;
  tick: string;
  tickPx: string;
  interval: string;
  held: TrialAsked["held"];
  focal: string;
}

export type Field = Exclude<keyof Typed, "kind" | "kitId" | "target" | "unit" | "held">;
export type Problems = Partial<Record<Field, string>>;

export const NOTHING: Typed = {
  kind: "stops",
  folder: "",
  kitId: null,
  target: "texture",
  stops: "",
  size: "",
  pixelUm: "",
  circleUm: "",
  angle: "30",
  step: "",
  perStep: "1",
  unit: "division",
  tick: "",
  tickPx: "",
  interval: "",
  held: "support",
  focal: "",
};

export const KINDS: readonly { id: TrialKind; label: string; how: string }[] = [
  {
    id: "stops",
    label: "The best stop of a lens",
    how: "Print something with fine detail, stand it square to the axis, and leave the focus alone. Two frames at each stop, by the timer.",
  },
  {
    id: "steps",
    label: "What a step of a rail moves",
    how: "Lay a print or a ruler on a slope of about 30° to the axis. Eight frames or more, in steps under half the depth that a frame holds.",
  },
  {
    id: "backlash",
    label: "The play of a rail",
    how: "The same slope: fourteen frames or more forward, then the same readings on the way back.",
  },
  {
    id: "calm",
    label: "How soon a rail is calm",
    how: "Anything with fine detail. Move the rail once, and take a burst of short exposures from the moment it stops: twenty or more.",
  },
  {
    id: "stillness",
    label: "The longest shutter that stays sharp",
    how: "Something with fine detail, eight frames at each of several shutter times, as you will shoot.",
  },
  {
    id: "sway",
    label: "How much your hands sway",
    how: "Lay a print on a slope of about 30° to the axis. Hold the camera as you will shoot, and take a burst of thirty.",
  },
  {
    id: "dark",
    label: "Whether long exposures take twice as long",
    how: "Frames of 1, 2 and 4 s, two of each, one right after the other.",
  },
  {
    id: "ruler",
    label: "The true size of a rig, by a ruler",
    how: "Photograph a ruler through the rig of a shot, square to the camera. What is kept there is listed here.",
  },
  {
    id: "two_tubes",
    label: "A lens by two tubes",
    how: "Two frames of a ruler with two tubes, the ring left where it was: focal length and pupils of a shot's lens.",
  },
];

/** Kinds that are measured at a shot, not from a folder. */
export const isByHand = (kind: TrialKind) => kind === "ruler" || kind === "two_tubes";

/** Fields that a kind of trial has. */
export const FIELDS: Record<TrialKind, readonly Field[]> = {
  stops: ["size", "pixelUm", "circleUm", "stops"],
  steps: ["size", "pixelUm", "angle", "tick", "tickPx", "perStep"],
  backlash: ["step"],
  calm: ["size", "pixelUm", "circleUm", "interval"],
  stillness: ["size", "focal"],
  sway: ["size", "pixelUm", "angle"],
  dark: [],
  ruler: [],
  two_tubes: [],
};

const NEEDED: Record<TrialKind, readonly Field[]> = {
  stops: [],
  steps: ["size", "pixelUm", "angle", "perStep"],
  backlash: ["step"],
  calm: ["size", "pixelUm"],
  stillness: [],
  sway: ["size", "pixelUm", "angle"],
  dark: [],
  ruler: [],
  two_tubes: [],
};

/** Kinds of gear that a kind of trial is of. */
export function gearOf({ kind, unit, held }: Pick<Typed, "kind" | "unit" | "held">): readonly string[] {
  if (kind === "stops") return ["lens", "zoom"];
  if (kind === "steps") return unit === CAMERA_UNIT ? ["lens", "zoom"] : ["rail"];
  if (kind === "backlash" || kind === "calm") return ["rail"];
  if (kind === "stillness") return [held === "hand" ? "body" : "support"];
  return kind === "dark" ? ["body"] : [];
}

export const CAMERA_UNIT = "camera unit";

/** The request, or what is wrong field by field. */
export function askedOf(typed: Typed, name: string): TrialAsked | Problems {
  const problems: Problems = {};
  const number = (field: Field) => {
    if (!FIELDS[typed.kind].includes(field)) return null;
    const text = typed[field].trim().replace(",", ".");
    if (text === "") {
      if (NEEDED[typed.kind].includes(field)) problems[field] = "This must be known.";
      return null;
    }
    const value = Number(text);
    if (!Number.isFinite(value) || value <= 0) {
      problems[field] = `${typed[field]} is no number above 0.`;
      return null;
    }
    return value;
  };
  if (!typed.folder.trim()) problems.folder = "Which folder are the frames in?";
  const stops = typed.kind === "stops" ? stopsOf(typed.stops) : [];
  if (stops === null) problems.stops = "Stops are numbers with spaces between: 2.8 4 5.6";
  const [size, pixel, circle] = [number("size"), number("pixelUm"), number("circleUm")];
  const [angle, step, perStep] = [number("angle"), number("step"), number("perStep")];
  const [tick, tickPx] = [number("tick"), number("tickPx")];
  const [interval, focal] = [number("interval"), number("focal")];
  if (Object.keys(problems).length) return problems;
  return {
    kind: typed.kind,
    folder: typed.folder.trim(),
    name,
    kit_id: typed.kitId,
    target: typed.target,
    f_numbers: stops ?? [],
    magnification: size,
    pupil_magnification: 1,
    pixel_pitch_mm: pixel === null ? null : pixel / 1000,
    c_mm: circle === null ? null : circle / 1000,
    angle_deg: angle ?? 30,
    tick_mm: tick,
    tick_px: tickPx,
    step_mm: step,
    per_step: perStep ?? 1,
    unit: typed.unit,
    interval_s: interval,
    held: typed.held,
    focal_length_mm: focal,
  };
}

export const isAsked = (made: TrialAsked | Problems): made is TrialAsked => "kit_id" in made;

function stopsOf(text: string): number[] | null {
  const parts = text.split(/[\s;]+/).filter(Boolean);
  const stops = parts.map((part) => Number(part.replace(/^f\/?/i, "").replace(",", ".")));
  return stops.every((stop) => Number.isFinite(stop) && stop > 0) ? stops : null;
}

/** The fields as they stand for a trial that is asked elsewhere. */
export function typedOf(asked: TrialAsked, kitId: string | null): Typed {
  const text = (value: number | null, times = 1) =>
    value === null ? "" : String(Number((value * times).toPrecision(8)));
  return {
    ...NOTHING,
    kind: asked.kind,
    folder: asked.folder,
    kitId,
    target: asked.target,
    stops: asked.f_numbers.join(" "),
    size: text(asked.magnification),
    pixelUm: text(asked.pixel_pitch_mm, 1000),
    circleUm: text(asked.c_mm, 1000),
    angle: text(asked.angle_deg),
    step: text(asked.step_mm),
    perStep: text(asked.per_step),
    unit: asked.unit,
    tick: text(asked.tick_mm),
    tickPx: text(asked.tick_px),
    interval: text(asked.interval_s),
    held: asked.held,
    focal: text(asked.focal_length_mm),
  };
}
