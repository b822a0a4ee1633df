import { Button as AriaButton, GridList, GridListItem, useDragAndDrop } from "react-aria-components";
import styled from "styled-components";
import type { Plan } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { length, times } from "../../units/format";
import { nameOf } from "../../gear/words";
import { signed } from "./reachWords";
import { dropped, type Row } from "./row";

const Rows = styled(GridList)`
  border-top: 1px solid ${({ theme }) => theme.strong};
  border-bottom: 1px solid ${({ theme }) => theme.strong};
  margin-bottom: 4px;
  .react-aria-DropIndicator {
    height: 3px;
    background: ${({ theme }) => theme.strong};
  }
`;

const Entry = styled(GridListItem)`
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr);
  align-items: center;
  min-height: 46px;
  padding: 3px 6px 3px 0;
  cursor: pointer;
  & + & {
    border-top: 1px solid ${({ theme }) => theme.line};
  }
  &[data-selected] {
    background: ${({ theme }) => theme.raised};
    font-weight: 620;
  }
  &[data-dragging] {
    opacity: 0.5;
  }
`;

const Handle = styled(AriaButton)`
  width: 30px;
  min-height: 40px;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.soft};
  font-size: 16px;
  cursor: grab;
`;

const Words = styled.div`
  min-width: 0;
  & > * {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    font-size: 12px;
    font-weight: 400;
    color: ${({ theme }) => theme.soft};
  }
  small[data-trouble] {
    color: ${({ theme }) => theme.trouble};
    text-decoration: underline dashed 1px;
    text-underline-offset: 3px;
  }
`;

const End = styled.p`
  font-size: 12px;
  color: ${({ theme }) => theme.soft};
  margin: 0 0 3px;
`;

interface RowEditorProps {
  row: Row;
  plan: Plan | null;
  selected: number | null;
  onSelect: (index: number | null) => void;
  onChange: (row: Row) => void;
  onRemove: (index: number) => void;
  problemAt: (field: string) => string | undefined;
}

/** The pieces from the subject to the body: drag to reorder (or Enter on the handle and arrows), Delete takes out. */
export function RowEditor({ row, plan, selected, onSelect, onChange, onRemove, problemAt }: RowEditorProps) {
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ "text/plain": nameAt(row, Number(key)) })),
    onReorder: ({ keys, target }) => {
      const moving = [...keys].map(Number);
      onChange(
        dropped(row, moving, Number(target.key), target.dropPosition === "before" ? "before" : "after"),
      );
      onSelect(null);
    },
  });
  return (
    <div
      onKeyDown={(event) => {
        const key = (event.target as HTMLElement).closest("[data-key]")?.getAttribute("data-key");
        if ((event.key === "Delete" || event.key === "Backspace") && key) onRemove(Number(key));
      }}
    >
      <End>subject</End>
      <Rows
        aria-label="The row of pieces, subject to body"
        dragAndDropHooks={dragAndDropHooks}
        selectionMode="single"
        selectionBehavior="toggle"
        selectedKeys={selected === null ? [] : [String(selected)]}
        onSelectionChange={(keys) => {
          const [first] = keys === "all" ? [] : [...keys];
          onSelect(first === undefined ? null : Number(first));
        }}
        renderEmptyState={() => <End>No piece yet: add a lens.</End>}
      >
        {row.map((piece, index) => {
          const trouble = problemAt(`/rig/${index}`);
          return (
            <Entry key={index} id={String(index)} textValue={nameAt(row, index)}>
              <Handle slot="drag" aria-label={`Move ${nameOf(piece.gear)}`}>
                ⠿
              </Handle>
              <Words>
                <span>{nameAt(row, index)}</span>
                {trouble ? (
                  <small data-trouble="" title={trouble}>
                    {trouble}
                  </small>
                ) : (
                  <Given plan={plan} index={index} />
                )}
              </Words>
            </Entry>
          );
        })}
      </Rows>
      <End>body</End>
    </div>
  );
}

function nameAt(row: Row, index: number): string {
  const piece = row[index];
  return piece ? `${nameOf(piece.gear)}${piece.reversed ? ", turned round" : ""}` : "";
}

/** What a piece contributes, as the plan has it. */
function Given({ plan, index }: { plan: Plan | null; index: number }) {
  const { units } = usePreferences();
  const reach = plan?.reach;
  const given = reach?.contributions.find((each) => each.index === index);
  if (!reach) return null;
  if (!given) {
    const isLens = reach.pieces.some((piece) => piece.index === index);
    return isLens ? (
      <small>
        {reach.lens_magnification < 0.0005
          ? "focused at infinity"
          : `works at ${times(reach.lens_magnification)}`}
        , {length(reach.focal_length_now_mm, units)} there
      </small>
    ) : null;
  }
  if (given.magnification === null) return <small>without it there is no picture</small>;
  const parts = [
    signed(given.magnification, (value) => times(value)),
    Math.abs(given.stops ?? 0) < 0.05
      ? "no light"
      : signed(-(given.stops ?? 0), (value) => `${value.toFixed(1)} stops`),
    given.room_mm === null ? null : `${signed(given.room_mm, (value) => length(value, units, 2))} room`,
  ];
  return <small>{parts.filter(Boolean).join(", ")}</small>;
}
