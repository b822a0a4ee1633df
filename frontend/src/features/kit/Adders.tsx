import styled from "styled-components";
import type { Gear, Kit } from "../../api/types";
import { Pick } from "../../controls/Pick";
import { KINDS, nameOf, newKitId, type Kind } from "../../gear/words";

const Adder = styled.div`
  width: 210px;
`;

interface AddersProps {
  pieces: Kit["pieces"];
  shelf: Kit | undefined;
  onAdd: (gear: Gear) => void;
  /** A piece of one's own, empty. */
  onBegin: (kind: Kind) => void;
}

/** Another piece: generic with usual numbers, or one of one's own. */
export function Adders({ pieces, shelf, onAdd, onBegin }: AddersProps) {
  return (
    <>
      <Adder>
        <Pick
          label="Add generic gear"
          value={null}
          placeholder="with usual numbers"
          options={(shelf?.pieces ?? []).map(({ gear }) => ({
            id: gear.kit_id ?? "",
            label: nameOf(gear),
          }))}
          onChange={(id) => {
            const like = shelf?.pieces.find(({ gear }) => gear.kit_id === id)?.gear;
            if (!like) return;
            const taken = pieces.some((each) => each.gear.kit_id === id);
            onAdd(taken ? { ...like, kit_id: newKitId(like.kind) } : like);
          }}
        />
      </Adder>
      <Adder>
        <Pick
          label="Add a piece of your own"
          value={null}
          placeholder="what is it?"
          options={KINDS.map(({ kind, one }) => ({ id: kind, label: one }))}
          onChange={(kind) => onBegin(kind as Kind)}
        />
      </Adder>
    </>
  );
}
