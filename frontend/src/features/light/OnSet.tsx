import styled from "styled-components";
import type { Gear, Shot } from "../../api/types";
import { Button } from "../../controls/Button";
import { QuantityField } from "../../controls/QuantityField";
import { by } from "../../controls/steps";
import { Pick } from "../../controls/Pick";
import { Fields, Wide } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";
import { nameOf } from "../../gear/words";
import { useKit } from "../../gear/useKit";

const Away = styled(Button)`
  width: 100%;
  padding: 4px 10px;
  white-space: normal;
  justify-content: start;
  text-align: left;
`;

type SetGear = NonNullable<Shot["on_set"]>[number]["gear"];

function isSetGear(gear: Gear): gear is SetGear {
  return gear.kind === "light" || gear.kind === "diffuser" || gear.kind === "support";
}

/** What stands around the subject: lights, diffusers, supports. */
export function OnSet() {
  const { shot, edit } = useBench();
  const pieces = (useKit().data?.kit.pieces ?? []).map((piece) => piece.gear).filter(isSetGear);
  const there = shot.on_set;
  const put = (index: number, from_axis_deg: number | null) =>
    edit((draft) => ({
      ...draft,
      on_set: draft.on_set.map((each, at) => (at === index ? { ...each, from_axis_deg } : each)),
    }));
  const set = (on_set: typeof there) => edit((draft) => ({ ...draft, on_set }));
  return (
    <Fields>
      <Wide>
        <Pick
          label="Add from the kit"
          value={null}
          placeholder={pieces.length ? "light, diffuser, support" : "the kit has none"}
          options={pieces.map((gear) => ({ id: gear.kit_id ?? "", label: nameOf(gear) }))}
          onChange={(id) => {
            const gear = pieces.find((each) => each.kit_id === id);
            if (gear && there.length < 16) set([...there, { gear, from_axis_deg: null }]);
          }}
        />
      </Wide>
      {there.map((thing, index) => (
        <Wide key={index}>
          {thing.gear.kind === "light" ? (
            <QuantityField
              label={`${nameOf(thing.gear)}: degrees from the axis`}
              kind="plain"
              value={thing.from_axis_deg}
              step={by(5, 15)}
              emptyHint="not known"
              onEmpty={() => put(index, null)}
              onChange={(from_axis_deg) => put(index, Math.min(Math.max(from_axis_deg, 0), 180))}
            />
          ) : null}
          <Away onPress={() => set(there.filter((_, at) => at !== index))}>
            Take away: {nameOf(thing.gear)}
          </Away>
        </Wide>
      ))}
    </Fields>
  );
}
