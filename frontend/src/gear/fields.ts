/** The numbers of each kind of gear, in the order in which people have them on paper. */
import { along, by, byShare } from "../controls/steps";
import type { QuantityFieldProps } from "../controls/QuantityField";
import type { Kind } from "./words";

interface NumberField {
  type: "number";
  /** Path in the piece; a zoom's ends have two parts. */
  at: readonly string[];
  step: QuantityFieldProps["step"];
  /** What is assumed when it is left empty. */
  unknown?: string;
  hint?: string;
  /** In place of the contract's title, where two of a kind stand on one form. */
  label?: string;
}

interface YesField {
  type: "yes";
  at: readonly string[];
}

interface ChoiceField {
  type: "choice";
  at: readonly string[];
  options: readonly { id: string; label: string }[];
}

export type GearField = NumberField | YesField | ChoiceField;
type More = Pick<NumberField, "unknown" | "hint" | "label">;

const F_STOPS = [1, 1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32, 45, 64];
const mm = by(1, 10);
const fine = by(0.1, 1);

const number = (at: string, step: NumberField["step"], more: More = {}): NumberField => ({
  type: "number",
  at: at.split("."),
  step,
  ...more,
});
const length = (at: string, more: More = {}, step = mm) => number(at, step, more);
const grams = (at: string) => number(at, by(10, 100), { unknown: "not known", hint: "grams" });
const yes = (at: string): YesField => ({ type: "yes", at: [at] });
const thread = (at: string, more: More = {}) => length(at, more, by(0.5, 5));
const choice = (at: string, options: ChoiceField["options"]): ChoiceField => ({
  type: "choice",
  at: [at],
  options,
});
const pupil = (at: string) => number(at, by(0.05, 0.5, 0.1), { unknown: "not known: 1" });

const CLICKS = choice("stops", [
  { id: "full", label: "full stops" },
  { id: "half", label: "halves" },
  { id: "third", label: "thirds" },
]);

const LENS_COMMON: readonly GearField[] = [
  CLICKS,
  thread("thread_mm", { unknown: "not known" }),
  grams("weight_g"),
  length("hood_mm"),
  length("barrel_growth_mm", { hint: "at closest focus" }),
  length("image_circle_mm", { unknown: "covers the sensor" }, by(0.5, 5)),
  number("made_to_magnification", byShare, { unknown: "what it reaches" }),
  yes("aperture_ring"),
  yes("foot"),
];

const zoomEnd = (end: "short" | "long", word: string): readonly GearField[] => [
  length(`${end}.focal_length_mm`, { label: `${word} end` }),
  length(`${end}.minimum_focus_distance_mm`, { hint: "subject to sensor mark" }),
  number(`${end}.closest_magnification`, byShare, { unknown: "not known" }),
  length(`${end}.barrel_mm`),
  number(`${end}.widest_f_number`, along(F_STOPS)),
  number(`${end}.narrowest_f_number`, along(F_STOPS)),
  pupil(`${end}.pupil_magnification`),
];

const area = [length("width_mm", {}, by(10, 100, 1)), length("height_mm", {}, by(10, 100, 1))];

const OWN_FIELDS: Record<Kind, readonly GearField[]> = {
  body: [
    length("sensor_width_mm", {}, fine),
    length("sensor_height_mm", {}, fine),
    number("pixels_across", by(16, 1000, 16), { unknown: "not known" }),
    length("register_mm", {}, by(0.5, 5)),
  ],
  lens: [
    length("focal_length_mm"),
    length("minimum_focus_distance_mm", { hint: "subject to sensor mark", unknown: "not known" }),
    number("closest_magnification", byShare),
    length("barrel_mm"),
    number("widest_f_number", along(F_STOPS)),
    number("narrowest_f_number", along(F_STOPS)),
    pupil("pupil_magnification"),
    ...LENS_COMMON,
    number("smallest_magnification", byShare, {
      unknown: "infinity",
      hint: "of a lens for 2.5× to 5× only: 2.5",
    }),
    length("working_distance_mm", { unknown: "not known", hint: "only with a smallest size" }),
    length("farthest_working_distance_mm", { unknown: "not known", hint: "only with a smallest size" }),
    number("tilt_deg", by(0.5, 5), { hint: "degrees; 0: does not" }),
    length("shift_mm", { hint: "0: does not" }),
    choice("rotates", [
      { id: "no", label: "not" },
      { id: "clicks", label: "in clicks" },
      { id: "freely", label: "freely" },
    ]),
    number("click_apart_deg", by(5, 15, 1), {
      unknown: "stays anywhere",
      hint: "degrees; one of them unturned",
    }),
    length("pivot_behind_node_mm", {
      unknown: "not known",
      hint: "toward the sensor; the picture moves when the tilt turns about another point",
    }),
    length("measured_focal_length_mm", { unknown: "not measured" }),
    length("measured_closest_focal_length_mm", { unknown: "not measured" }),
    number("measured_pupil_magnification", by(0.05, 0.5, 0.1), {
      unknown: "not measured",
    }),
  ],
  zoom: [...zoomEnd("short", "Short"), ...zoomEnd("long", "Long"), ...LENS_COMMON],
  objective: [
    number("magnification", by(1, 5, 1)),
    number("numerical_aperture", by(0.01, 0.1, 0.01)),
    choice("correction", [
      { id: "finite", label: "a tube length" },
      { id: "infinity", label: "infinity" },
    ]),
    length("tube_length_mm", { hint: "finite: shoulder to image" }),
    length("reference_focal_length_mm", { hint: "infinity: its tube lens" }),
    length("working_distance_mm", {}, fine),
    length("barrel_mm"),
    number("iris_to", by(0.01, 0.1, 0.01), {
      unknown: "no iris",
      hint: "numerical aperture",
    }),
  ],
  tube: [length("length_mm"), grams("carries_g"), yes("contacts")],
  bellows: [length("shortest_mm"), length("longest_mm"), grams("carries_g"), yes("contacts")],
  converter: [
    number("factor", by(0.1, 0.5, 1.1)),
    length("thickness_mm"),
    yes("contacts"),
    yes("reaches_in"),
  ],
  close_up: [
    number("dioptres", by(0.5, 1)),
    thread("thread_mm", { unknown: "not known" }),
    length("thickness_mm"),
  ],
  step_ring: [thread("lens_thread_mm"), thread("front_thread_mm"), length("thickness_mm")],
  reversing_ring: [thread("thread_mm"), length("thickness_mm")],
  coupling_ring: [thread("lens_thread_mm"), thread("front_thread_mm"), length("thickness_mm")],
  rail: [
    length("travel_mm"),
    length("smallest_step_mm", { unknown: "one division" }, by(0.001, 0.01, 0.001)),
    length("mm_per_turn", { unknown: "not known" }, by(0.01, 0.1, 0.01)),
    number("divisions", by(1, 10, 1), { unknown: "not known" }),
    length("backlash_mm", {}, by(0.01, 0.1)),
    grams("carries_g"),
    length("measured_mm_per_turn", { unknown: "not measured" }, by(0.01, 0.1, 0.01)),
    number("measured_swing_um", byShare, { unknown: "not measured" }),
    number("measured_calms_s", byShare, { unknown: "not measured" }),
    choice("driven", [
      { id: "hand", label: "hand" },
      { id: "motor", label: "motor" },
    ]),
  ],
  light: [...area, yes("hot"), yes("flash")],
  diffuser: [...area, length("thickness_mm", {}, fine), yes("burns")],
  support: [grams("carries_g")],
};

/** What every kind has besides. */
const COST = number("cost", byShare, { unknown: "not known", hint: "in your own money" });

/** Fields of a kind of gear. */
export const fieldsOf = (kind: Kind): readonly GearField[] => [...OWN_FIELDS[kind], COST];

/** Where a field's problem is told: the pointer below the piece. */
export function pointerOf(field: GearField): string {
  return `/${field.at.join("/")}`;
}
