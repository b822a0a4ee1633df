import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { TrialKind, TrialPracticeMade } from "../../api/types";
import { Button } from "../../controls/Button";
import { Check as Tick } from "../../controls/Check";
import { Fold } from "../../controls/Fold";

const FAULTS = [
  { id: "soft_wide_open", label: "soft wide open" },
  { id: "focus_off", label: "out of focus a little" },
  { id: "focus_shifts", label: "focus goes as it stops down" },
  { id: "light_jumps", label: "light that jumps at one stop" },
  { id: "moved", label: "knocked between frames" },
] as const;
type Fault = (typeof FAULTS)[number]["id"];
const SIMULATED = ["stops", "steps", "backlash", "calm", "stillness", "sway", "dark"] as const;
type Simulated = (typeof SIMULATED)[number];

const isSimulated = (kind: TrialKind): kind is Simulated => SIMULATED.some((each) => each === kind);

interface BySimulatedProps {
  kind: TrialKind;
  isDisabled: boolean;
  onMade: (made: TrialPracticeMade) => void;
}

/** The simulated camera takes the frames: of a lens, a rail or a hand whose truth is told. */
export function BySimulated({ kind, isDisabled, onMade }: BySimulatedProps) {
  const [open, setOpen] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const take = useMutation({
    mutationFn: (of: Simulated) =>
      dataOf(
        api.POST("/api/trials/practice-frames", {
          body: {
            kind: of,
            seed: 1 + Math.floor(Math.random() * 1e6),
            noise: 0.01,
            faults: of === "stops" ? faults : [],
          },
        }),
      ),
    onSuccess: onMade,
  });
  if (!isSimulated(kind)) return null;
  return (
    <Fold title="With the simulated camera" isOpen={open} onOpenChange={setOpen}>
      {kind === "stops"
        ? FAULTS.map(({ id, label }) => (
            <Tick
              key={id}
              label={label}
              value={faults.includes(id)}
              onChange={(on) => setFaults(on ? [...faults, id] : faults.filter((each) => each !== id))}
            />
          ))
        : null}
      <Button onPress={() => take.mutate(kind)} isPending={take.isPending} isDisabled={isDisabled}>
        {take.isPending ? "Taking them…" : "Take the frames and measure"}
      </Button>
      {take.error ? <p role="alert">{sentenceOf(take.error)}</p> : null}
    </Fold>
  );
}
