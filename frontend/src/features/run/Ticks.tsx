import { useEffect, useRef, useState } from "react";
import type { Run } from "../../api/types";
import { Check } from "../../controls/Check";
import { store, stored } from "../../look/storage";
import { play, soundOf } from "./sounds";

const KEY = "just-plane.ticks";

/** A tick for each frame, a low tone for trouble; may be off, and stays so. */
export function Ticks({ run }: { run: Run }) {
  const [on, setOn] = useState(() => stored("local", KEY) !== "off");
  const before = useRef<Run | null>(null);
  useEffect(() => {
    const sound = soundOf(before.current, run);
    before.current = run;
    if (sound && on) play(sound);
  }, [run, on]);
  return (
    <Check
      label="Ticks of sound"
      value={on}
      onChange={(wanted) => {
        setOn(wanted);
        store("local", KEY, wanted ? "on" : "off");
      }}
    />
  );
}
