import { useMutation, useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { StackNumbers } from "../../api/types";
import { Button } from "../../controls/Button";
import { Check as Tick } from "../../controls/Check";
import { Fold } from "../../controls/Fold";
import { Section } from "../../controls/panel";
import { QuantityField } from "../../controls/QuantityField";
import { TextBox } from "../../controls/TextBox";
import { useHeir } from "../../controls/useHeir";
import { BringFiles } from "../../shot/BringFiles";
import { useRun } from "../../shot/useRun";
import { METHODS, type Check } from "./useCheck";
import { METHOD_HINTS, METHOD_WORDS } from "./words";
import type { ProofMethod } from "../../api/types";

const Form = styled.form`
  display: grid;
  gap: 10px;
  margin: 6px 0 16px;
`;

const SLABS = { frames: 8, shared: 2 };
/** Frames that a slab can have. */
const held = (frames: number) => Math.min(Math.max(Math.round(frames), 4), 100);

const FAULTS = [
  { id: "skipped_step", label: "two steps skipped" },
  { id: "bump", label: "a bump" },
  { id: "dead_flash", label: "a flash that did not fire" },
  { id: "light_drift", label: "light that drifts" },
] as const;

/** Which frames to look at, and which proofs to make of them: those in `at` to begin with, or those of the last run. */
export function FromFolder({ check, shotId, at }: { check: Check; shotId: string; at?: string }) {
  const box = useRef<HTMLInputElement>(null);
  useHeir(box, "keyboard");
  const { run } = useRun(shotId);
  const given = at || (run?.folder ?? "");
  const [shown, setShown] = useState<string | null>(null);
  const folder = shown ?? given;
  // The field is taken over in the same moment as the form is sent: what counts is what was typed last.
  const typed = useRef<string | null>(null);
  const setFolder = (text: string) => {
    typed.current = text;
    setShown(text);
  };
  const [methods, setMethods] = useState<ProofMethod[]>(check.job?.methods ?? ["windowed", "depth"]);
  const [more, setMore] = useState(false);
  const [planned, setPlanned] = useState(true);
  const [slabs, setSlabs] = useState(check.job?.slabs ?? null);
  const demo =
    useQuery({ queryKey: ["alive"], queryFn: () => dataOf(api.GET("/api/alive")) }).data?.demo ?? false;
  const begin = (numbers: StackNumbers | null = null, where = typed.current ?? given) =>
    check.start.mutate({ folder: where.trim(), methods, numbers, plan: planned ? "shot" : "none", slabs });
  const toggle = (method: ProofMethod, on: boolean) =>
    setMethods(on ? [...methods, method] : methods.filter((each) => each !== method));
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        begin();
      }}
    >
      <TextBox
        boxRef={box}
        label="Folder that the frames are in"
        value={folder}
        onChange={setFolder}
        problem={check.start.error ? sentenceOf(check.start.error) : undefined}
      />
      <BringFiles onBrought={setFolder} />
      {run?.folder && !folder ? (
        <Button onPress={() => setFolder(run.folder ?? "")}>The folder of the run</Button>
      ) : null}
      <div>
        {METHODS.map((method) => (
          <Tick
            key={method}
            label={`Proof: ${METHOD_WORDS[method].toLowerCase()}, ${METHOD_HINTS[method]}`}
            value={methods.includes(method)}
            onChange={(on) => toggle(method, on)}
          />
        ))}
      </div>
      <Fold title="Without the plan, or with slabs" isOpen={more} onOpenChange={setMore}>
        <Tick label="judge by the plan of this shot" value={planned} onChange={setPlanned} />
        <Tick
          label="slabs besides: runs of frames merged by themselves, for the retoucher"
          value={slabs !== null}
          onChange={(on) => setSlabs(on ? SLABS : null)}
        />
        {slabs ? (
          <QuantityField
            label="Frames a slab"
            kind="count"
            value={slabs.frames}
            hint={`${slabs.shared} of them are shared with the slab before`}
            step={(value, direction) => held(value + direction)}
            onChange={(frames) => setSlabs({ ...slabs, frames: held(frames) })}
          />
        ) : null}
      </Fold>
      <Button type="submit" data-weight="main" isPending={check.start.isPending}>
        Look through the frames
      </Button>
      {demo ? (
        <Practice
          shotId={shotId}
          onMade={(made) => {
            setFolder(made.folder);
            begin(made.numbers, made.folder);
          }}
        />
      ) : null}
    </Form>
  );
}

function Practice({
  shotId,
  onMade,
}: {
  shotId: string;
  onMade: (made: { folder: string; numbers: StackNumbers }) => void;
}) {
  const [faults, setFaults] = useState<(typeof FAULTS)[number]["id"][]>(["skipped_step", "dead_flash"]);
  const make = useMutation({
    mutationFn: () =>
      dataOf(
        api.POST("/api/shots/{shot_id}/practice-frames", {
          params: { path: { shot_id: shotId } },
          body: { faults },
        }),
      ),
    onSuccess: onMade,
  });
  return (
    <div>
      <Section>Made-up frames of this stack</Section>
      {FAULTS.map(({ id, label }) => (
        <Tick
          key={id}
          label={label}
          value={faults.includes(id)}
          onChange={(on) => setFaults(on ? [...faults, id] : faults.filter((each) => each !== id))}
        />
      ))}
      {make.error ? <p role="alert">{sentenceOf(make.error)}</p> : null}
      <Button onPress={() => make.mutate()} isPending={make.isPending}>
        {make.isPending ? "Taking them…" : "Take them and look"}
      </Button>
    </div>
  );
}
