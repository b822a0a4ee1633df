import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";
import type { Finding, KitPiece } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { Check } from "../../controls/Check";
import { KINDS, nameOf } from "../../gear/words";
import { inShort } from "./inShort";

const Group = styled.section`
  margin-top: 14px;
  h2 {
    font-size: 13px;
    font-weight: 650;
    padding-bottom: 3px;
    border-bottom: 1px solid ${({ theme }) => theme.strong};
  }
`;

const Lines = styled.ul`
  columns: 2 320px;
  column-gap: 26px;
`;

const Line = styled.li`
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr);
  align-items: center;
  break-inside: avoid;
  border-bottom: 1px solid ${({ theme }) => theme.line};
`;

const Open = styled(AriaButton)`
  display: block;
  width: 100%;
  min-height: 46px;
  padding: 4px 8px;
  text-align: left;
  border: 0;
  background: none;
  cursor: pointer;
  & > * {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  strong {
    font-weight: 560;
  }
  small {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
  small[data-trouble] {
    color: ${({ theme }) => theme.trouble};
    text-decoration: underline dashed 1px;
    text-underline-offset: 3px;
  }
  &[data-hovered] {
    background: ${({ theme }) => theme.surface};
  }
  &[aria-pressed="true"] {
    background: ${({ theme }) => theme.raised};
  }
  &[data-left] strong {
    color: ${({ theme }) => theme.soft};
    font-weight: 400;
  }
`;

interface KitShelfProps {
  pieces: readonly KitPiece[];
  findings: readonly Finding[];
  selected: string | null;
  onSelect: (kitId: string) => void;
  onCarry: (kitId: string, carried: boolean) => void;
}

/** All pieces by kind; a tick puts a piece on the table. */
export function KitShelf({ pieces, findings, selected, onSelect, onCarry }: KitShelfProps) {
  const { units } = usePreferences();
  const numbered = pieces.map((piece, index) => ({ piece, index }));
  return (
    <section aria-label="Pieces of the kit">
      {KINDS.map(({ kind, many }) => {
        const here = numbered.filter(({ piece }) => piece.gear.kind === kind);
        if (!here.length) return null;
        return (
          <Group key={kind} aria-label={many}>
            <h2>{many}</h2>
            <Lines>
              {here.map(({ piece, index }) => {
                const { gear } = piece;
                const id = gear.kit_id ?? "";
                const carried = piece.carried !== false;
                const trouble = findings.find(
                  (finding) =>
                    finding.severity === "trouble" &&
                    `${finding.field}/`.startsWith(`/pieces/${index}/gear/`),
                );
                return (
                  <Line key={id}>
                    <Check
                      bare
                      label={`On the table: ${nameOf(gear)}`}
                      value={carried}
                      onChange={(on) => onCarry(id, on)}
                    />

                    <Open
                      aria-pressed={selected === id}
                      onPress={() => onSelect(id)}
                      {...(carried ? {} : { "data-left": "" })}
                    >
                      <strong>{nameOf(gear)}</strong>
                      {trouble ? (
                        <small data-trouble="">{trouble.message}</small>
                      ) : (
                        <small>{inShort(gear, units)}</small>
                      )}
                    </Open>
                  </Line>
                );
              })}
            </Lines>
          </Group>
        );
      })}
    </section>
  );
}
