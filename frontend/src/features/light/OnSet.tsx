import styled from "styled-components";
import type { Gear, Shot } from "../../api/types";
import { Button } from "../../controls/Button";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by, byShare } from "../../controls/steps";
import { Pick } from "../../controls/Pick";
import { Fields, Wide } from "../../controls/panel";
import { OneMore } from "../../shot/OneMore";
import { useBench } from "../../shot/ShotContext";
import { nameOf } from "../../gear/words";
import { useKit, useShelf } from "../../gear/useKit";

const Away = styled(Button)`
  width: 100%;
  padding: 4px 10px;
  white-space: normal;
  justify-content: start;
  text-align: left;
`;

const Name = styled.h3`
  font-size: 13px;
  font-weight: 650;
`;

type Thing = NonNullable<Shot["on_set"]>[number];

const SIDES = [
  { id: "left", label: "left of it" },
  { id: "right", label: "right of it" },
] as const;

function isSetGear(gear: Gear): gear is Thing["gear"] {
  return gear.kind === "light" || gear.kind === "diffuser" || gear.kind === "support";
}

/** What stands around the subject: lights, diffusers, supports; of the kit, or generic where the kit has none. */
export function OnSet() {
  const { shot, edit } = useBench();
  const own = (useKit().data?.kit.pieces ?? []).map((piece) => piece.gear).filter(isSetGear);
  const generic = (useShelf().data?.pieces ?? []).map((piece) => piece.gear).filter(isSetGear);
  const pieces = own.length ? own : generic;
  const add = (gear: Thing["gear"]) =>
    edit((draft) => ({
      ...draft,
      on_set: [...draft.on_set, { gear, from_axis_deg: null, away_mm: null, side: "left" as const }],
    }));
  return (
    <Fields>
      <Wide>
        <OneMore at="/on_set" held={shot.on_set.length} what="things stand around the subject">
          <Pick
            label={own.length ? "Add from the kit" : "Add generic gear"}
            value={null}
            placeholder="light, diffuser, support"
            options={pieces.map((gear) => ({ id: gear.kit_id ?? "", label: nameOf(gear) }))}
            onChange={(id) => {
              const gear = pieces.find((each) => each.kit_id === id);
              if (gear) add(gear);
            }}
          />
        </OneMore>
      </Wide>
      {shot.on_set.map((thing, index) => (
        <OneThing key={index} thing={thing} index={index} />
      ))}
    </Fields>
  );
}

function OneThing({ thing, index }: { thing: Thing; index: number }) {
  const { edit, problemAt } = useBench();
  const at = `/on_set/${index}`;
  const put = (change: Partial<Thing>) =>
    edit((draft) => ({
      ...draft,
      on_set: draft.on_set.map((each, place) => (place === index ? { ...each, ...change } : each)),
    }));
  return (
    <>
      <Wide>
        <Name>{nameOf(thing.gear)}</Name>
      </Wide>
      {thing.gear.kind === "support" ? null : (
        <>
          <QuantityField
            label="From the axis"
            kind="plain"
            unit="°"
            value={thing.from_axis_deg}
            step={by(5, 15)}
            emptyHint="not known"
            onEmpty={() => put({ from_axis_deg: null })}
            onChange={(from_axis_deg) => put({ from_axis_deg: Math.min(Math.max(from_axis_deg, 0), 180) })}
            problem={problemAt(`${at}/from_axis_deg`)}
            hint="0 lens, 90 beside, 180 behind"
          />
          <QuantityField
            label="From the subject"
            kind="length"
            value={thing.away_mm}
            step={byShare}
            emptyHint="not known"
            onEmpty={() => put({ away_mm: null })}
            onChange={(away_mm) => put({ away_mm })}
            problem={problemAt(`${at}/away_mm`)}
          />
          <Wide>
            <Segments
              label="As the camera sees it"
              value={thing.side}
              options={SIDES}
              onChange={(side) => put({ side })}
            />
          </Wide>
        </>
      )}
      <Wide>
        <Away
          onPress={() =>
            edit((draft) => ({ ...draft, on_set: draft.on_set.filter((_, place) => place !== index) }))
          }
        >
          Take away: {nameOf(thing.gear)}
        </Away>
      </Wide>
    </>
  );
}
