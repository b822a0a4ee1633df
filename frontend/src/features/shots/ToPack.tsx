import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import { Fold } from "../../controls/Fold";
import { figures } from "../../units/format";

const List = styled.ul`
  margin: 0 0 12px;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr) minmax(0, 1fr);
    gap: 8px;
    padding: 6px 0;
    border-bottom: 1px solid ${({ theme }) => theme.line};
    overflow-wrap: anywhere;
  }
  small {
    color: ${({ theme }) => theme.soft};
  }
`;

const SHOWN = 3;

/** The gear of all shots under a heading, as one list to pack. */
export function ToPack({ heading }: { heading: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Fold
      title={heading ? `To pack for ${heading}` : "To pack for all of them"}
      isOpen={open}
      onOpenChange={setOpen}
    >
      <Pieces heading={heading} />
    </Fold>
  );
}

function Pieces({ heading }: { heading: string }) {
  const list = useQuery({
    queryKey: ["packing", heading],
    queryFn: () => dataOf(api.GET("/api/packing", { params: { query: { heading } } })),
    refetchOnMount: "always",
  });
  if (list.isError) return <p role="alert">{sentenceOf(list.error)}</p>;
  if (!list.data) return <p>Looking through the shots…</p>;
  const { pieces, cost, without_cost, shots } = list.data;
  return (
    <>
      <List aria-label="Gear to pack">
        {pieces.map((piece) => (
          <li key={`${piece.kind} ${piece.kit_id ?? piece.name}`}>
            <span>{piece.count} ×</span>
            <strong>{piece.name}</strong>
            <small>
              {piece.shots.length === shots.length
                ? "every shot"
                : piece.shots.slice(0, SHOWN).join(", ") +
                  (piece.shots.length > SHOWN ? ` and ${piece.shots.length - SHOWN} more` : "")}
            </small>
          </li>
        ))}
      </List>
      {cost === null ? null : (
        <p>
          {figures(cost, 6)} altogether
          {without_cost ? `, without ${without_cost} whose cost is not typed` : ""}.
        </p>
      )}
    </>
  );
}
