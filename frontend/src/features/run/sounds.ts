/** Ticks of sound: what was heard need not be looked for. */
import type { Run } from "../../api/types";

export type Sound = "taken" | "over" | "trouble";

/** What is to be heard when a run has come from one standing to another; null: nothing. */
export function soundOf(before: Run | null, now: Run): Sound | null {
  if (before?.run_id !== now.run_id) return null;
  if (now.trouble && !before.trouble) return "trouble";
  const taken = (run: Run) => run.times_taken.reduce((sum, times) => sum + times, 0);
  if (taken(now) <= taken(before)) return null;
  return now.state === "finished" ? "over" : "taken";
}

/** Hz and seconds of each tone. */
const TONES: Record<Sound, readonly (readonly [number, number])[]> = {
  taken: [[880, 0.06]],
  over: [
    [660, 0.12],
    [880, 0.12],
    [1320, 0.2],
  ],
  trouble: [
    [330, 0.25],
    [220, 0.4],
  ],
};
const LOUD = 0.15;

let context: AudioContext | null = null;

/** Played where the browser lets a page be heard; elsewhere nothing happens. */
export function play(sound: Sound) {
  try {
    context ??= new AudioContext();
    let at = context.currentTime;
    for (const [pitch, lasts] of TONES[sound]) {
      const tone = context.createOscillator();
      const volume = context.createGain();
      tone.frequency.value = pitch;
      volume.gain.setValueAtTime(LOUD, at);
      volume.gain.exponentialRampToValueAtTime(0.001, at + lasts);
      tone.connect(volume).connect(context.destination);
      tone.start(at);
      tone.stop(at + lasts);
      at += lasts;
    }
  } catch {
    // A browser without sound.
  }
}
