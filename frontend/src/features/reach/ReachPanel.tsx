import { useState } from "react";
import styled from "styled-components";
import type { Shot } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { Button, LinkButton } from "../../controls/Button";
import { Check } from "../../controls/Check";
import { Fold } from "../../controls/Fold";
import { Pick } from "../../controls/Pick";
import { figures, length, size, times } from "../../units/format";
import { AnswerBox, Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { Cautions } from "../../shot/Cautions";
import { OneMore } from "../../shot/OneMore";
import { useBench } from "../../shot/ShotContext";
import { GearForm } from "../../gear/GearForm";
import { isChainGear, nameOf } from "../../gear/words";
import { useKit, useShelf } from "../../gear/useKit";
import { Framing } from "./Framing";
import { gearToPick } from "./gearToPick";
import { turned } from "./onItsSide";
import { Orders } from "./Orders";
import { PieceTools } from "./PieceTools";
import { ReachFacts } from "./ReachFacts";
import { reachWords } from "./reachWords";
import { RowEditor } from "./RowEditor";
import { onlyLens, withLens, withPiece, withRig, type Row } from "./row";

const Links = styled.div`
  display: flex;
  flex-wrap: wrap; /* where a scrollbar takes room */
  gap: 8px;
  margin-bottom: 14px;
  & > * {
    flex: 1;
  }
`;

/** Station 2: the frame wanted, and the row of pieces that gives it. */
export function ReachPanel({ shotId }: { shotId: string }) {
  const { shot, plan, edit, problemAt } = useBench();
  const kit = useKit().data?.kit;
  const shelf = useShelf().data;
  const [selected, setSelected] = useState<number | null>(null);
  const [bodyOpen, setBodyOpen] = useState(false);
  const gear = gearToPick(kit?.pieces, shelf?.pieces);
  const setRow = (rig: Row) => edit((draft) => withRig(draft, { rig }, kit));
  const setBody = (body: Shot["body"]) => edit((draft) => withRig(draft, { body }, kit));
  const piece = selected === null ? undefined : shot.rig[selected];
  return (
    <>
      <Heading>How close, with what?</Heading>
      <Framing />
      <ReachAnswer />
      <RowEditor
        row={shot.rig}
        plan={plan}
        selected={selected}
        onSelect={setSelected}
        onChange={setRow}
        onRemove={(index) => {
          setRow(shot.rig.filter((_, at) => at !== index));
          setSelected(null);
        }}
        problemAt={problemAt}
      />
      <Cautions station="reach" />
      <BodyAndPieces />
      {piece && selected !== null ? (
        <>
          <Section>{nameOf(piece.gear)}</Section>
          <PieceTools
            row={shot.rig}
            index={selected}
            options={gear}
            onChange={(row, index) => {
              setRow(row);
              setSelected(index);
            }}
            problemAt={problemAt}
          />
          <GearForm
            gear={piece.gear}
            onChange={(changed) =>
              setRow(shot.rig.map((each, at) => (at === selected ? { ...each, gear: changed } : each)))
            }
            problemAt={(pointer) => problemAt(`/rig/${selected}/gear${pointer}`)}
          />
        </>
      ) : null}
      <ReachFacts />
      <Orders />
      <Links>
        <LinkButton href="/kit">The kit</LinkButton>
        <LinkButton href={`/shots/${shotId}/ruler`}>Measure with a ruler</LinkButton>
      </Links>
      {shot.measured ? (
        <Lead>
          A ruler gave {figures(shot.measured.magnification, 4)}× where the model says{" "}
          {figures(shot.measured.modelled, 4)}×; every size here is corrected by that.{" "}
          <Button onPress={() => edit((draft) => ({ ...draft, measured: null }))}>Use the model alone</Button>
        </Lead>
      ) : null}
      <Fold
        title="Numbers of the body"
        isOpen={bodyOpen || Boolean(problemAt("/body"))}
        onOpenChange={setBodyOpen}
      >
        <GearForm gear={shot.body} onChange={setBody} problemAt={(pointer) => problemAt(`/body${pointer}`)} />
      </Fold>
    </>
  );
}

/** What the rig gives at the framing, or why it gives nothing. */
function ReachAnswer() {
  const { shot, plan, problemAt } = useBench();
  const { units } = usePreferences();
  const reach = plan?.reach;
  const trouble = problemAt("/framing") ?? problemAt("/rig");
  return reach ? (
    <AnswerBox {...(trouble ? { "data-trouble": "" } : {})}>
      <strong>
        {times(reach.magnification)}, {length(Math.max(reach.working_distance_mm, 0), units)} to work in
      </strong>
      Frame {size(reach.frame_width_mm, reach.frame_height_mm, units)}
      {reach.crops.map((crop) =>
        crop.name === shot.crop_mode
          ? ""
          : `; ${crop.name}: ${size(crop.frame_width_mm, crop.frame_height_mm, units)}`,
      )}
      . {reachWords(reach, units)}
      {reach.size_uncertainty === null
        ? ""
        : ` Measured with a ruler, ± ${figures((reach.size_uncertainty / reach.magnification) * 100, 2)} %.`}
    </AnswerBox>
  ) : (
    <AnswerBox data-trouble="">
      <strong>{plan?.verdict.headline ?? "Working it out…"}</strong>
      {plan?.verdict.detail}
    </AnswerBox>
  );
}

/** The lens where there is one, another piece for the row, the body, and how it stands. */
function BodyAndPieces() {
  const { shot, plan, edit } = useBench();
  const kit = useKit().data?.kit;
  const shelf = useShelf().data;
  const reach = plan?.reach;
  const gear = gearToPick(kit?.pieces, shelf?.pieces);
  const bodies = gear.filter((each) => each.gear.kind === "body");
  const lens = onlyLens(shot.rig);
  const lenses = gear.filter((each) => each.gear.kind === "lens" || each.gear.kind === "zoom");
  const modes = shot.body.crop_modes;
  const setRow = (rig: Row) => edit((draft) => withRig(draft, { rig }, kit));
  const setBody = (body: Shot["body"]) => edit((draft) => withRig(draft, { body }, kit));
  return (
    <Fields>
      {lens !== null ? (
        <Wide>
          <Pick
            label="Lens"
            value={lenses.find((each) => each.gear.kit_id === shot.rig[lens]?.gear.kit_id)?.id ?? null}
            placeholder={nameOf((shot.rig[lens] as Row[number]).gear)}
            options={lenses.map(({ id, label }) => ({ id, label }))}
            onChange={(id) => {
              const other = lenses.find((each) => each.id === id)?.gear;
              if (other && isChainGear(other)) setRow(withLens(shot.rig, lens, other));
            }}
          />
        </Wide>
      ) : null}
      <Wide>
        <OneMore at="/rig" held={shot.rig.length} what="pieces stand in the row">
          <Pick
            label="Add a piece"
            value={null}
            placeholder="from the kit"
            options={gear.filter((each) => isChainGear(each.gear)).map(({ id, label }) => ({ id, label }))}
            onChange={(id) => {
              const added = gear.find((each) => each.id === id)?.gear;
              if (added && isChainGear(added)) setRow(withPiece(shot.rig, added));
            }}
          />
        </OneMore>
      </Wide>
      <Wide>
        <Pick
          label="Body"
          value={bodies.find((each) => each.gear.kit_id === shot.body.kit_id)?.id ?? null}
          placeholder={shot.body.name || "own numbers"}
          options={bodies.map(({ id, label }) => ({ id, label }))}
          onChange={(id) => {
            const body = bodies.find((each) => each.id === id)?.gear;
            if (body?.kind === "body") setBody(body);
          }}
        />
      </Wide>
      {modes.length ? (
        <Wide>
          <Pick
            label="Part of the sensor"
            value={shot.crop_mode ?? ""}
            options={[
              { id: "", label: "all of it" },
              ...modes.map((mode) => ({ id: mode.name, label: mode.name })),
            ]}
            onChange={(name) => edit((draft) => ({ ...draft, crop_mode: name === "" ? null : name }))}
          />
        </Wide>
      ) : null}
      <Wide>
        <Check
          label="Camera on its side"
          value={shot.camera_on_its_side}
          onChange={(on) =>
            edit((draft) =>
              turned(draft, on, reach ? reach.sensor_width_mm / reach.sensor_height_mm : shapeOf(draft)),
            )
          }
        />
      </Wide>
    </Fields>
  );
}

/** Of the whole sensor as the camera stands, while nothing better is known. */
function shapeOf({ body, camera_on_its_side }: Shot): number {
  const level = body.sensor_width_mm / body.sensor_height_mm;
  return camera_on_its_side ? 1 / level : level;
}
