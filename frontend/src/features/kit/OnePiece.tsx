/** The piece that is looked at: its form and what is assumed of it; or what to do where none is. */
import styled from "styled-components";
import type { Finding, Gear } from "../../api/types";
import { Button } from "../../controls/Button";
import { GearForm } from "../../gear/GearForm";
import { nameOf, wordsOf } from "../../gear/words";
import { PutAway } from "./PutAway";

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

interface OnePieceProps {
  gear: Gear;
  /** Pointer to it in the kit. */
  at: string;
  findings: Finding[];
  problemAt: (pointer: string) => string | undefined;
  onChange: (gear: Gear) => void;
  onPutAway: () => void;
  onCopy: () => void;
}

/** The numbers of one piece, what is assumed of it, and where it is used. */
export function OnePiece({ gear, at, findings, problemAt, onChange, onPutAway, onCopy }: OnePieceProps) {
  const general = problemAt(at);
  const assumed = findings.filter(
    (finding) => finding.severity !== "trouble" && finding.field.startsWith(`${at}/`),
  );
  return (
    <Piece>
      <h2>{nameOf(gear)}</h2>
      <p>{wordsOf(gear.kind).one}</p>
      {general ? <p data-trouble="">{general}</p> : null}
      <GearForm
        key={gear.kit_id}
        gear={gear}
        onChange={onChange}
        problemAt={(pointer) => problemAt(`${at}${pointer}`)}
      />
      {assumed.map((finding) => (
        <p key={finding.code}>
          {finding.message} {finding.remedy}
        </p>
      ))}
      <PutAway key={`away ${gear.kit_id}`} gear={gear} onPutAway={onPutAway} onCopy={onCopy} />
    </Piece>
  );
}

export function NoPiece({ isEmpty, onFirst }: { isEmpty: boolean; onFirst: () => void }) {
  return (
    <Piece>
      <h2>One piece at a time</h2>
      <p>
        Choose a piece on the left to see its numbers. A tick puts it on the table: the search uses what is
        there.
      </p>
      <Button isDisabled={isEmpty} onPress={onFirst}>
        The first one
      </Button>
    </Piece>
  );
}
