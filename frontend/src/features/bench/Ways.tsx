import { createContext, memo, useContext, useEffect, useMemo, useRef } from "react";
import { Radio, RadioGroup } from "react-aria-components";
import styled, { css } from "styled-components";
import type { WayAnswer } from "../../api/types";
import type { Viewport } from "../../drawing/viewport";
import { fonts } from "../../look/theme";
import { LaneOf } from "./Lane";
import { inOrder } from "../../shot/ways";
import { frames, percent, seconds, stop, unbroken } from "../../units/format";

/** Columns shared by the ways and the headings over them. */
export const wayColumns = css`
  grid-template-columns: minmax(0, 1fr) 52px 92px 104px 64px;
  column-gap: 8px;
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr) 46px 80px 88px 56px;
  }
`;

const List = styled(RadioGroup)`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-auto-rows: max-content; /* a row is as tall as its words, however little room there is */
  gap: 4px;
  overflow: hidden auto;
  scrollbar-gutter: stable;
`;

const Row = styled(Radio)`
  position: relative;
  display: grid;
  ${wayColumns}
  align-items: baseline;
  min-height: 46px;
  padding: 16px 10px 5px;
  background: ${({ theme }) => theme.surface};
  overflow: hidden; /* its lane is as wide as the rule, also where a scrollbar takes some of it */
  cursor: pointer;
  outline-offset: -2px !important;
  /* Styled from the row: seven rows of eight parts are drawn anew at every move of the pointer. */
  & > [data-lane] {
    position: absolute;
    left: 0;
    top: 3px;
  }
  & > [data-words] {
    min-width: 0;
    line-height: 1.25;
    overflow-wrap: anywhere;
    strong {
      font-weight: 650;
    }
    span {
      margin-left: 10px;
      font-size: 12.5px;
      color: ${({ theme }) => theme.soft};
    }
    [data-against] {
      color: ${({ theme }) => theme.trouble};
    }
  }
  & > [data-figure] {
    text-align: right;
    font: 500 13px ${fonts.figures};
    white-space: nowrap;
  }
  &[data-selected] {
    background: ${({ theme }) => theme.raised};
    box-shadow: inset 3px 0 0 ${({ theme }) => theme.strong};
  }
  &[data-hovered] {
    background: ${({ theme }) => theme.raised};
  }
`;

const Folded = styled.details`
  padding: 4px 10px 8px;
  font-size: 13px;
  color: ${({ theme }) => theme.soft};
  & > summary {
    min-height: 40px;
    display: flex;
    align-items: center;
    cursor: pointer;
  }
  & > summary::before {
    content: "+";
    width: 16px;
  }
  &[open] > summary::before {
    content: "−";
  }
  li {
    list-style: none;
    padding: 3px 0 3px 16px;
    line-height: 1.3;
    overflow-wrap: anywhere;
  }
`;

interface WaysProps {
  ways: WayAnswer[];
  view: Viewport;
  shift: number;
  selected: WayAnswer["id"] | null;
  chosen: WayAnswer["id"] | null;
  /** How many points must be sharp; 0 when there are none. */
  points: number;
  onSelect: (id: WayAnswer["id"]) => void;
}

/** What the rows show. It reaches them past the list, whose choices are costly to draw and stay as they are. */
interface RowsShow extends Omit<WaysProps, "onSelect"> {
  impossible: WayAnswer[];
}
const Shown = createContext<RowsShow | null>(null);

/** Every way to get the shot: its sharp band on the rule's own scale, and its price. */
export const Ways = memo(function Ways({ onSelect, ...shown }: WaysProps) {
  const { possible, impossible } = useMemo(() => inOrder(shown.ways), [shown.ways]);
  const order = possible.map((way) => way.id).join(" ");
  const ids = useMemo(() => order.split(" ").filter(Boolean) as WayAnswer["id"][], [order]);
  return (
    <Shown value={{ ...shown, impossible }}>
      <Choices ids={ids} selected={shown.selected} onSelect={onSelect} />
    </Shown>
  );
});

interface ChoicesProps {
  ids: WayAnswer["id"][];
  selected: WayAnswer["id"] | null;
  onSelect: (id: WayAnswer["id"]) => void;
}

const Choices = memo(function Choices({ ids, selected, onSelect }: ChoicesProps) {
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    list.current?.querySelector("[data-selected]")?.scrollIntoView({ block: "nearest" });
  }, [selected]);
  return (
    <List
      ref={list}
      aria-label="Ways to get the shot"
      value={selected}
      onChange={(id) => onSelect(id as WayAnswer["id"])}
    >
      {ids.map((id) => (
        <Row key={id} value={id}>
          <OneWay id={id} />
        </Row>
      ))}
      <NotPossible />
    </List>
  );
});

/** One way in its row. */
function OneWay({ id }: { id: WayAnswer["id"] }) {
  const shown = useContext(Shown);
  const way = shown?.ways.find((each) => each.id === id);
  if (!shown || !way) return null;
  const { view, shift, selected, chosen, points } = shown;
  return (
    <>
      <LaneOf way={way} view={view} shift={shift} />
      <div data-words="">
        <strong>{way.title}</strong>
        {way.id === chosen ? <span>decided</span> : way.recommended ? <span>suggested</span> : null}
        <span>{unbroken(way.note)}</span>
        {way.soft ? <span>{unbroken(way.soft)}</span> : null}
        {way.id === selected ? <span>{unbroken(way.reason)}</span> : null}
        {way.against.map((reason) => (
          <span key={reason} data-against="">
            {unbroken(reason)}
          </span>
        ))}
      </div>
      <span data-figure="">
        {way.points_held != null && points ? `${way.points_held} of ${points}` : percent(way.cover)}
      </span>
      <span data-figure="">{frames(way.frames)}</span>
      <span data-figure="">{seconds(way.time_s)}</span>
      <span data-figure="">{stop(way.effective_f_number)}</span>
    </>
  );
}

/** What this set-up does not have, in one line that opens, each with what stands in its way. */
function NotPossible() {
  const ways = useContext(Shown)?.impossible ?? [];
  if (!ways.length) return null;
  return (
    <Folded>
      <summary>
        Not with this set-up: {ways.map((way) => way.title.split(",")[0]?.toLowerCase()).join(", ")}
      </summary>
      <ul>
        {ways.map((way) => (
          <li key={way.id}>
            <strong>{way.title.split(",")[0]}</strong> {way.against.join("; ")}
          </li>
        ))}
      </ul>
    </Folded>
  );
}
