/** The hand at the knobs: what a key does, and what counts as a move. Pure. */
import type { Drill, DrillSetting, PracticeResult } from "../../api/types";

export type KnobName = Drill["knobs"][number]["name"];

/** A setting that stays so long is a move: turning past and back is one. */
export const MOVE_MS = 300;
const LARGE = 10;

/** Keys of each knob: back and on. One hand does on the left of the keyboard, arrows do too. */
export const KEYS: Record<KnobName, readonly [string, string]> = {
  focus: ["ArrowLeft", "ArrowRight"],
  tilt: ["ArrowDown", "ArrowUp"],
  turn: ["a", "d"],
  stop: ["ArrowLeft", "ArrowRight"],
  rail: ["ArrowLeft", "ArrowRight"],
};

export const NAMES: Record<KnobName, string> = {
  focus: "focus",
  tilt: "tilt",
  turn: "turn of the tilt",
  stop: "stop",
  rail: "rail",
};

/** The setting with one knob turned by clicks, as far as it goes. */
export function turned(drill: Drill, setting: DrillSetting, name: KnobName, clicks: number): DrillSetting {
  const knob = drill.knobs.find((each) => each.name === name);
  if (!knob) return setting;
  const to = Math.min(Math.max(setting[name] + clicks, knob.low), knob.high);
  return to === setting[name] ? setting : { ...setting, [name]: to };
}

/** Which knob a key turns, and by how much; null: none. Shift turns ten clicks. */
export function turnOf(drill: Drill, key: string, shift: boolean): { name: KnobName; clicks: number } | null {
  const pressed = key.length === 1 ? key.toLowerCase() : key;
  for (const knob of drill.knobs) {
    const [back, on] = KEYS[knob.name];
    const clicks = shift ? LARGE : 1;
    if (pressed === back) return { name: knob.name, clicks: -clicks };
    if (pressed === on) return { name: knob.name, clicks };
  }
  return null;
}

/** What is engraved where a knob stands. */
export function readingOf(drill: Drill, setting: DrillSetting, name: KnobName): string {
  const knob = drill.knobs.find((each) => each.name === name);
  return knob?.scale[setting[name] - knob.low] ?? "";
}

/** A setting in words, for those who do not see the picture's knobs. */
export function settingWords(drill: Drill, setting: DrillSetting): string {
  return drill.knobs.map((knob) => `${NAMES[knob.name]} ${readingOf(drill, setting, knob.name)}`).join(", ");
}

/** What there is to say of a drill beside its picture: moves, and afterwards what was reached. */
export function factsOf(drill: Drill, moves: number, result: PracticeResult | null): [string, string][] {
  const rows: [string, string][] = [["moves", `${moves}, a good hand takes ${drill.par}`]];
  if (result === null) return rows;
  if (result.reached_um !== null && result.best_um !== null) {
    rows.push(["softest place", `${result.softest}, ${Math.round(result.reached_um)} µm`]);
    rows.push(["could be had", `${Math.round(result.best_um)} µm`]);
    rows.push(["sharp is", `${Math.round(drill.sharp_um)} µm`]);
  }
  if (result.hints) rows.push(["asked for", `${result.hints} ${result.hints === 1 ? "move" : "moves"}`]);
  rows.push(["time", `${Math.round(result.time_s)} s, not counted`]);
  return rows;
}

/** Where a picture was pressed, as shares of it. */
export function placeIn(
  box: { left: number; top: number; width: number; height: number },
  at: { clientX: number; clientY: number },
): { from_left: number; from_top: number } {
  const share = (value: number) => Math.min(Math.max(value, 0), 1);
  return {
    from_left: share((at.clientX - box.left) / box.width),
    from_top: share((at.clientY - box.top) / box.height),
  };
}

/** The moment of the set at which a press falls: the time of the frame on the screen and what has passed since it was drawn. */
export function momentOf(drawn: { t: number; at: number } | null, pressedAt: number): number | null {
  return drawn ? drawn.t + (pressedAt - drawn.at) / 1000 : null;
}
