import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import { Button } from "../../controls/Button";
import { Heading, Lead } from "../../controls/panel";
import { Pick } from "../../controls/Pick";
import { Segments } from "../../controls/Segments";
import { TextBox } from "../../controls/TextBox";
import { nameOf } from "../../gear/words";
import { useKit } from "../../gear/useKit";
import {
  askedOf,
  FIELDS,
  gearOf,
  isByHand,
  isAsked,
  KINDS,
  NOTHING,
  typedOf,
  type Field,
  type Problems,
  type Typed,
} from "./asking";
import { BringFiles } from "../../shot/BringFiles";
import { AtAShot } from "./AtAShot";
import { BySimulated } from "./BySimulated";
import type { TrialsHeld } from "./useTrials";

const Form = styled.form`
  display: grid;
  gap: 12px;
  align-content: start;
`;

const WORDS: Record<Field, string> = {
  folder: "Folder that the frames are in",
  size: "Size on the sensor, ×",
  pixelUm: "Pixel, µm",
  circleUm: "Detail that counts as sharp, µm (30)",
  stops: "Stops in the order of the frames, where the files do not say",
  angle: "Surface to axis, °",
  step: "The rail’s step between frames, mm",
  tick: "or by a ruler that lies there: its ticks, mm",
  tickPx: "and those ticks in the frame, px",
  perStep: "Units a step",
  interval: "Seconds between frames, where the files do not say",
  focal: "Focal length, mm (by hand)",
};

const UNITS = [
  { id: "division", label: "divisions" },
  { id: "turn", label: "turns" },
  { id: "camera unit", label: "camera units" },
];

/** What to measure, how, and with which frames. */
export function AskTrial({ held }: { held: TrialsHeld }) {
  const [typed, setTyped] = useState<Typed>(NOTHING);
  const [problems, setProblems] = useState<Problems>({});
  const [truth, setTruth] = useState("");
  const pieces = usePieces(typed);
  const put = (part: Partial<Typed>) => {
    setTyped((now) => ({ ...now, ...part }));
    setProblems({});
    setTruth("");
  };
  const begin = (now: Typed, name = pieces.find((piece) => piece.id === now.kitId)?.label ?? "") => {
    const asked = askedOf(now, name);
    if (isAsked(asked)) held.begin.mutate(asked);
    else setProblems(asked);
  };
  const kind = KINDS.find((each) => each.id === typed.kind) ?? null;
  const kit = useKit();
  if (kit.isPending && kit.errorUpdateCount === 0) return <Form />;
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        begin(typed);
      }}
    >
      <Heading>Measure</Heading>
      <Pick
        label="What"
        value={typed.kind}
        options={KINDS}
        onChange={(id) => put({ kind: id as Typed["kind"] })}
      />
      <Lead>{kind?.how}</Lead>
      {isByHand(typed.kind) ? (
        <AtAShot />
      ) : (
        <>
          {pieces.length ? (
            <Pick
              label="Of which piece of the kit"
              value={typed.kitId}
              options={pieces}
              onChange={(kitId) => put({ kitId })}
              placeholder="none: only to know"
            />
          ) : null}
          <TextBox
            label={WORDS.folder}
            value={typed.folder}
            onChange={(folder) => put({ folder })}
            problem={problems.folder}
          />
          <BringFiles onBrought={(folder) => put({ folder })} />
          <Numbers typed={typed} put={put} problems={problems} />
          {held.begin.error ? <p role="alert">{sentenceOf(held.begin.error)}</p> : null}
          <Button type="submit" data-weight="main" isPending={held.begin.isPending}>
            Measure it
          </Button>
          <BySimulated
            kind={typed.kind}
            isDisabled={held.begin.isPending}
            onMade={(made) => {
              const now = typedOf(made.asked, typed.kitId);
              setTyped(now);
              setTruth(made.truth);
              begin(now, made.asked.name);
            }}
          />
        </>
      )}
      {truth ? <Lead>Taken of what is known: {truth}</Lead> : null}
    </Form>
  );
}

interface NumbersProps {
  typed: Typed;
  put: (part: Partial<Typed>) => void;
  problems: Problems;
}

/** What the frames do not say themselves, by the kind of trial. */
function Numbers({ typed, put, problems }: NumbersProps) {
  return (
    <>
      {typed.kind === "stops" ? (
        <Segments
          label="Photographed was"
          value={typed.target}
          onChange={(target) => put({ target })}
          options={[
            { id: "texture", label: "print, texture" },
            { id: "edge", label: "a slanted edge" },
          ]}
        />
      ) : null}
      {FIELDS[typed.kind].map((field) => (
        <TextBox
          key={field}
          label={WORDS[field]}
          value={typed[field]}
          onChange={(text) => put({ [field]: text })}
          problem={problems[field]}
        />
      ))}
      {typed.kind === "stillness" ? (
        <Segments
          label="The camera was"
          value={typed.held}
          onChange={(how) => put({ held: how })}
          options={[
            { id: "support", label: "on its support" },
            { id: "hand", label: "in the hand" },
          ]}
        />
      ) : null}
      {typed.kind === "steps" ? (
        <Pick label="Those units are" value={typed.unit} options={UNITS} onChange={(unit) => put({ unit })} />
      ) : null}
    </>
  );
}

/** Pieces of the kit that a trial is of. */
function usePieces(typed: Typed) {
  const kit = useKit().data?.kit.pieces ?? [];
  const wanted = gearOf(typed);
  return kit
    .filter((piece) => wanted.includes(piece.gear.kind) && piece.gear.kit_id !== null)
    .map((piece) => ({ id: piece.gear.kit_id ?? "", label: nameOf(piece.gear) }));
}
