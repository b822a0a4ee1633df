import { useState } from "react";
import styled from "styled-components";
import { gearField } from "../../api/fields";
import type { Gear } from "../../api/types";
import { Button } from "../../controls/Button";
import { missingFrom } from "../../gear/empty";
import { pointerOf } from "../../gear/fields";
import { GearForm } from "../../gear/GearForm";
import { wordsOf } from "../../gear/words";

const Piece = styled.div`
  h2 {
    font-size: 16.5px;
    font-weight: 680;
    margin-bottom: 2px;
  }
  p {
    color: ${({ theme }) => theme.soft};
    margin-bottom: 12px;
  }
  p[data-trouble] {
    color: ${({ theme }) => theme.trouble};
  }
`;

const Doing = styled.div`
  display: flex;
  gap: 8px;
  margin: 12px 0;
`;

interface NewPieceProps {
  gear: Gear;
  onChange: (gear: Gear) => void;
  onAdd: (gear: Gear) => void;
  onLeave: () => void;
}

/** A piece of one's own, empty to begin with: it goes on the shelf when the numbers that it cannot do without are there. */
export function NewPiece({ gear, onChange, onAdd, onLeave }: NewPieceProps) {
  const [asked, setAsked] = useState(false);
  const missing = missingFrom(gear);
  const names = missing.map((field) => gearField(gear.kind, field.at).title.toLowerCase());
  return (
    <Piece>
      <h2>New {wordsOf(gear.kind).one}</h2>
      <p>Type what its data sheet says. What is left empty and not asked for is assumed, and said.</p>
      <GearForm
        gear={gear}
        onChange={onChange}
        problemAt={(pointer) =>
          asked && missing.some((field) => pointerOf(field) === pointer) ? "Still missing." : undefined
        }
      />
      {asked && names.length ? (
        <p data-trouble="" role="alert">
          Not on the shelf yet: {names.join(", ")} {names.length === 1 ? "is" : "are"} missing.
        </p>
      ) : null}
      <Doing>
        <Button data-weight="main" onPress={() => (missing.length ? setAsked(true) : onAdd(gear))}>
          Put it on the shelf
        </Button>
        <Button onPress={onLeave}>Leave it</Button>
      </Doing>
    </Piece>
  );
}
