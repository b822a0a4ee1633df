/** What a driven run asks of the hand now, and the words for its devices: pure. */
import type { Devices, Run } from "../../api/types";

type Fault = Devices["faults"][number];

export const WHAT_MAY_GO_WRONG: readonly { id: Fault; label: string }[] = [
  { id: "rail_play", label: "the rail has play" },
  { id: "rail_slips", label: "the rail slips on by one step" },
  { id: "rail_drifts_sideways", label: "the rail drifts to the side" },
  { id: "rail_swings", label: "the rail swings after a move" },
  { id: "rail_gone", label: "the rail does not answer for a while" },
  { id: "flash_misfires", label: "a flash does not fire" },
  { id: "bump", label: "something is knocked" },
  { id: "light_drifts", label: "the light drifts" },
  { id: "set_creeps", label: "the set creeps" },
  { id: "camera_hangs", label: "the camera hangs" },
  { id: "frame_missed", label: "a frame is missed" },
  { id: "card_full", label: "the card fills up" },
  { id: "battery_flat", label: "the battery runs down" },
  { id: "dust", label: "dust on the sensor" },
];

export interface MainButton {
  words: string;
  act: "taken" | "set" | "pause" | "go on" | "drive on" | "none";
}

/** What the large button is: one thing, the thing to do now. */
export function mainButton(run: Run): MainButton {
  const { rail, camera } = run.devices;
  const byHand = rail === "hand" && camera === "hand";
  if (run.state === "paused") return { words: "Go on", act: byHand ? "go on" : "drive on" };
  if (byHand) return { words: "Taken", act: "taken" };
  if (!run.driven) return { words: "Go on", act: "drive on" };
  if (rail === "hand") return { words: "It stands there: release", act: "set" };
  if (camera === "hand") {
    return run.set_frame === run.next_frame
      ? { words: "Taken", act: "taken" }
      : { words: "The rail moves…", act: "none" };
  }
  return { words: "Pause", act: "pause" };
}
