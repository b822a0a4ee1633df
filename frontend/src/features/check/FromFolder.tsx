import { useMutation, useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { StackNumbers } from "../../api/types";
import { Button } from "../../controls/Button";
import { Check as Tick } from "../../controls/Check";
import { Section } from "../../controls/panel";
import { TextBox } from "../../controls/TextBox";
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

const FAULTS = [
  { id: "skipped_step", label: "two steps skipped" },
  { id: "bump", label: "a bump" },
  { id: "dead_flash", label: "a flash that did not fire" },
  { id: "light_drift", label: "light that drifts" },
] as const;

/** Which frames to look at, and which proofs to make of them. */
export function FromFolder({ check, shotId }: { check: Check; shotId: string }) {
  const [folder, setShown] = useState(check.job?.folder ?? "");
  // The field is taken over in the same moment as the form is sent: what counts is what was typed last.
  const typed = useRef(folder);
  const setFolder = (text: string) => {
    typed.current = text;
    setShown(text);
  };
  const [methods, setMethods] = useState<ProofMethod[]>(check.job?.methods ?? ["windowed", "depth"]);
  const { run } = useRun(shotId);
  const demo =
    useQuery({ queryKey: ["alive"], queryFn: () => dataOf(api.GET("/api/alive")) }).data?.demo ?? false;
  const begin = (numbers: StackNumbers | null = null, at = typed.current) =>
    check.start.mutate({ folder: at.trim(), methods, numbers });
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
      <Button type="submit" data-weight="main" isDisabled={check.start.isPending}>
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
      <Button onPress={() => make.mutate()} isDisabled={make.isPending}>
        {make.isPending ? "Taking them…" : "Take them and look"}
      </Button>
    </div>
  );
}
