/** The numbers of each kind of gear, in the order in which people have them on paper. */
import { along, by, byShare } from "../controls/steps";
import type { QuantityFieldProps } from "../controls/QuantityField";
import type { Kind } from "./words";

interface NumberField {
  type: "number";
  /** Path in the piece; a zoom's ends have two parts. */
  at: readonly string[];
  label: string;
  kind: QuantityFieldProps["kind"];
  step: QuantityFieldProps["step"];
  /** Given when it may be left empty: what is assumed then. */
  unknown?: string;
  hint?: string;
}

interface YesField {
  type: "yes";
  at: readonly string[];
  label: string;
}

interface ChoiceField {
  type: "choice";
  at: readonly string[];
  label: string;
  options: readonly { id: string; label: string }[];
}

export type GearField = NumberField | YesField | ChoiceField;

const F_STOPS = [1, 1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32, 45, 64];
const mm = by(1, 10);
const fine = by(0.1, 1);

function number(
  at: string,
  label: string,
  kind: NumberField["kind"],
  step: NumberField["step"],
  more: Pick<NumberField, "unknown" | "hint"> = {},
): NumberField {
  return { type: "number", at: at.split("."), label, kind, step, ...more };
}

const length = (at: string, label: string, more = {}, step = mm) => number(at, label, "length", step, more);
const grams = (at: string, label: string, unknown = "not known") =>
  number(at, label, "plain", by(10, 100), { unknown, hint: "grams" });
const yes = (at: string, label: string): YesField => ({ type: "yes", at: [at], label });
const thread = (at: string, label: string, more = {}) => length(at, label, more, by(0.5, 5));
const choice = (at: string, label: string, options: ChoiceField["options"]): ChoiceField => ({
  type: "choice",
  at: [at],
  label,
  options,
});
const pupil = (at: string) =>
  number(at, "Pupil magnification", "plain", by(0.05, 0.5, 0.1), { unknown: "not known: 1" });

const CLICKS = choice("stops", "Aperture clicks by", [
  { id: "full", label: "full stops" },
  { id: "half", label: "halves" },
  { id: "third", label: "thirds" },
]);

const LENS_COMMON: readonly GearField[] = [
  CLICKS,
  thread("thread_mm", "Filter thread", { unknown: "not known" }),
  grams("weight_g", "Weight"),
  length("hood_mm", "Of that, hood"),
  length("barrel_growth_mm", "Grows by", { hint: "at closest focus" }),
  length("image_circle_mm", "Image circle", { unknown: "covers the sensor" }, by(0.5, 5)),
  number("made_to_magnification", "Made for sizes up to", "ratio", byShare, { unknown: "what it reaches" }),
  yes("aperture_ring", "Aperture ring on the lens"),
  yes("foot", "Stands on a foot of its own"),
];

const zoomEnd = (end: "short" | "long", word: string): readonly GearField[] => [
  length(`${end}.focal_length_mm`, `${word} end`),
  length(`${end}.minimum_focus_distance_mm`, "Closest focus there", { hint: "subject to sensor mark" }),
  number(`${end}.closest_magnification`, "Size there", "ratio", byShare),
  length(`${end}.barrel_mm`, "Barrel with hood"),
  number(`${end}.widest_f_number`, "Widest stop", "fNumber", along(F_STOPS)),
  number(`${end}.narrowest_f_number`, "Narrowest stop", "fNumber", along(F_STOPS)),
  pupil(`${end}.pupil_magnification`),
];

const area = [
  length("width_mm", "Width", {}, by(10, 100, 1)),
  length("height_mm", "Height", {}, by(10, 100, 1)),
];

export const FIELDS: Record<Kind, readonly GearField[]> = {
  body: [
    length("sensor_width_mm", "Sensor width", {}, fine),
    length("sensor_height_mm", "Sensor height", {}, fine),
    number("pixels_across", "Pixels across", "count", by(16, 1000, 16), { unknown: "not known" }),
    length("register_mm", "Mount to sensor", {}, by(0.5, 5)),
  ],
  lens: [
    length("focal_length_mm", "Focal length"),
    length("minimum_focus_distance_mm", "Closest focus", { hint: "subject to sensor mark" }),
    number("closest_magnification", "Size there", "ratio", byShare),
    length("barrel_mm", "Barrel with hood"),
    number("widest_f_number", "Widest stop", "fNumber", along(F_STOPS)),
    number("narrowest_f_number", "Narrowest stop", "fNumber", along(F_STOPS)),
    pupil("pupil_magnification"),
    ...LENS_COMMON,
    number("tilt_deg", "Tilts by up to", "plain", by(0.5, 5), { hint: "degrees; 0: does not" }),
    length("shift_mm", "Shifts by up to", { hint: "0: does not" }),
    choice("rotates", "The mechanism turns", [
      { id: "no", label: "not" },
      { id: "clicks", label: "in clicks" },
      { id: "freely", label: "freely" },
    ]),
    number("click_apart_deg", "Clicks lie apart", "plain", by(5, 15, 1), {
      unknown: "stays anywhere",
      hint: "degrees; one of them unturned",
    }),
    length("pivot_behind_node_mm", "Tilt pivot behind the node", {
      unknown: "not known",
      hint: "toward the sensor; the picture moves when the tilt turns about another point",
    }),
    length("measured_focal_length_mm", "Measured focal length", { unknown: "not measured" }),
    length("measured_closest_focal_length_mm", "Measured, at closest", { unknown: "not measured" }),
    number("measured_pupil_magnification", "Measured pupils", "plain", by(0.05, 0.5, 0.1), {
      unknown: "not measured",
    }),
  ],
  zoom: [...zoomEnd("short", "Short"), ...zoomEnd("long", "Long"), ...LENS_COMMON],
  objective: [
    number("magnification", "Engraved size", "ratio", by(1, 5, 1)),
    number("numerical_aperture", "Numerical aperture", "plain", by(0.01, 0.1, 0.01)),
    choice("correction", "Corrected for", [
      { id: "finite", label: "a tube length" },
      { id: "infinity", label: "infinity" },
    ]),
    length("tube_length_mm", "Tube length", { hint: "finite: shoulder to image" }),
    length("reference_focal_length_mm", "Engraved for a lens of", { hint: "infinity: its tube lens" }),
    length("working_distance_mm", "Working distance", {}, fine),
    length("barrel_mm", "Shoulder to front"),
    number("iris_to", "Iris closes to", "plain", by(0.01, 0.1, 0.01), {
      unknown: "no iris",
      hint: "numerical aperture",
    }),
  ],
  tube: [length("length_mm", "Length"), grams("carries_g", "Carries"), yes("contacts", "Contacts")],
  bellows: [
    length("shortest_mm", "Shortest"),
    length("longest_mm", "Longest"),
    grams("carries_g", "Carries"),
    yes("contacts", "Contacts"),
  ],
  converter: [
    number("factor", "Factor", "plain", by(0.1, 0.5, 1.1)),
    length("thickness_mm", "Mount to mount"),
    yes("contacts", "Contacts"),
    yes("reaches_in", "Front glass reaches into the lens"),
  ],
  close_up: [
    number("dioptres", "Dioptres", "plain", by(0.5, 1)),
    thread("thread_mm", "Thread", { unknown: "not known" }),
    length("thickness_mm", "Thickness"),
  ],
  step_ring: [
    thread("lens_thread_mm", "Toward the lens"),
    thread("front_thread_mm", "Toward the front"),
    length("thickness_mm", "Thickness"),
  ],
  reversing_ring: [thread("thread_mm", "Thread"), length("thickness_mm", "Mount to thread")],
  coupling_ring: [
    thread("lens_thread_mm", "Lens on the camera"),
    thread("front_thread_mm", "Lens in front"),
    length("thickness_mm", "Thickness"),
  ],
  rail: [
    length("travel_mm", "Travel"),
    length("smallest_step_mm", "Smallest step", { unknown: "one division" }, by(0.001, 0.01, 0.001)),
    length("mm_per_turn", "A turn moves", { unknown: "not known" }, by(0.01, 0.1, 0.01)),
    number("divisions", "Divisions a turn", "count", by(1, 10, 1), { unknown: "not known" }),
    length("backlash_mm", "Play", {}, by(0.01, 0.1)),
    grams("carries_g", "Carries"),
    length("measured_mm_per_turn", "Measured, a turn", { unknown: "not measured" }, by(0.01, 0.1, 0.01)),
    choice("driven", "Moved by", [
      { id: "hand", label: "hand" },
      { id: "motor", label: "motor" },
    ]),
  ],
  light: [...area, yes("hot", "Gets hot"), yes("flash", "Flash")],
  diffuser: [
    ...area,
    length("thickness_mm", "Thickness", {}, fine),
    yes("burns", "Paper, film or fabric: can burn"),
  ],
  support: [grams("carries_g", "Carries")],
};

/** Where a field's problem is told: the pointer below the piece. */
export function pointerOf(field: GearField): string {
  return `/${field.at.join("/")}`;
}
