import styled from "styled-components";
import { Button } from "../../controls/Button";
import { Pick } from "../../controls/Pick";
import { QuantityField } from "../../controls/QuantityField";
import { along, by } from "../../controls/steps";
import { Fields, Wide } from "../../controls/panel";
import { isChainGear, isLens } from "../../gear/words";
import type { GearOption } from "./gearToPick";
import { moved, type Row } from "./row";

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 12px;
  button {
    padding: 0 10px;
  }
`;

interface PieceToolsProps {
  row: Row;
  index: number;
  options: readonly GearOption[];
  onChange: (row: Row, selected: number | null) => void;
  problemAt: (field: string) => string | undefined;
}

/** What can be done to one piece of the row besides its numbers. */
export function PieceTools({ row, index, options, onChange, problemAt }: PieceToolsProps) {
  const piece = row[index];
  if (!piece) return null;
  const { gear } = piece;
  const set = (change: Partial<typeof piece>) =>
    onChange(
      row.map((each, at) => (at === index ? { ...each, ...change } : each)),
      index,
    );
  const sameUse = options.filter(({ gear: other }) =>
    isChainGear(other) ? (isLens(gear) ? isLens(other) : other.kind === gear.kind) : false,
  );
  const turns = gear.kind === "lens" || gear.kind === "zoom";
  return (
    <>
      <Tools>
        <Button isDisabled={index === 0} onPress={() => onChange(moved(row, index, index - 1), index - 1)}>
          Toward subject
        </Button>
        <Button
          isDisabled={index === row.length - 1}
          onPress={() => onChange(moved(row, index, index + 1), index + 1)}
        >
          Toward body
        </Button>
        {turns ? (
          <Button onPress={() => set({ reversed: !piece.reversed })}>
            {piece.reversed ? "Turn it back" : "Turn it round"}
          </Button>
        ) : null}
        <Button
          onPress={() =>
            onChange(
              row.filter((_, at) => at !== index),
              null,
            )
          }
        >
          Take out
        </Button>
      </Tools>
      <Fields>
        {sameUse.length > 1 ? (
          <Wide>
            <Pick
              label="Swap for"
              value={null}
              placeholder="another of the kit"
              options={sameUse.map(({ id, label }) => ({ id, label }))}
              onChange={(id) => {
                const other = sameUse.find((each) => each.id === id)?.gear;
                if (other && isChainGear(other)) set({ gear: other, at_focal_length_mm: null });
              }}
            />
          </Wide>
        ) : null}
        {gear.kind === "zoom" ? (
          <QuantityField
            label="Set to"
            kind="length"
            value={piece.at_focal_length_mm ?? gear.long.focal_length_mm}
            step={by(1, 10, 1)}
            onChange={(at_focal_length_mm) => set({ at_focal_length_mm })}
            problem={problemAt(`/rig/${index}/at_focal_length_mm`)}
          />
        ) : null}
        {turns && piece.reversed && row.some((other, at) => at > index && isLens(other.gear)) ? (
          <QuantityField
            label="Its own stop"
            kind="fNumber"
            value={piece.f_number ?? null}
            step={along([1.4, 2, 2.8, 4, 5.6, 8, 11, 16])}
            onChange={(f_number) => set({ f_number })}
            onEmpty={() => set({ f_number: null })}
            emptyHint="wide open"
            problem={problemAt(`/rig/${index}/f_number`)}
          />
        ) : null}
      </Fields>
    </>
  );
}
