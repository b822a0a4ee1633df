import { memo, useEffect, useMemo, useRef } from "react";
import { Radio, RadioGroup } from "react-aria-components";
import styled, { css, useTheme } from "styled-components";
import type { WayAnswer } from "../../api/types";
import { joined } from "../../drawing/joined";
import { uprights } from "../../drawing/uprights";
import type { Viewport } from "../../drawing/viewport";
import { fonts } from "../../look/theme";
import { inOrder } from "../../shot/ways";
import { frames, percent, seconds, stop } from "../../units/format";

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

const Lane = styled.svg`
  position: absolute;
  left: 0;
  top: 3px;
`;

const Words = styled.div`
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

const LANE = 11;

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

/** Every way to get the shot: its sharp band on the rule's own scale, and its price. */
export const Ways = memo(function Ways(props: WaysProps) {
  const { ways, view, shift, selected, chosen, points, onSelect } = props;
  const list = useRef<HTMLDivElement>(null);
  const { possible, impossible } = useMemo(() => inOrder(ways), [ways]);
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
      {possible.map((way) => (
        <Row key={way.id} value={way.id}>
          <LaneOf way={way} view={view} shift={shift} />
          <Words>
            <strong>{way.title}</strong>
            {way.id === chosen ? <span>decided</span> : way.recommended ? <span>suggested</span> : null}
            <span>{way.note}</span>
            {way.soft ? <span>{way.soft}</span> : null}
            {way.id === selected ? <span>{way.reason}</span> : null}
            {way.against.map((reason) => (
              <span key={reason} data-against="">
                {reason}
              </span>
            ))}
          </Words>
          <span data-figure="">
            {way.points_held != null && points ? `${way.points_held} of ${points}` : percent(way.cover)}
          </span>
          <span data-figure="">{frames(way.frames)}</span>
          <span data-figure="">{seconds(way.time_s)}</span>
          <span data-figure="">{stop(way.effective_f_number)}</span>
        </Row>
      ))}
      {impossible.length ? <NotPossible ways={impossible} /> : null}
    </List>
  );
});

/** What this set-up does not have, in one line that opens, each with what stands in its way. */
function NotPossible({ ways }: { ways: WayAnswer[] }) {
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

/** The band of a way: solid where sharp; dashed brick where nothing of it is sharp. A tilted stack, whose planes lie aslant, is its frames alone. */
const LaneOf = memo(function LaneOf({ way, view, shift }: { way: WayAnswer; view: Viewport; shift: number }) {
  const theme = useTheme();
  const first = way.bands_mm[0];
  const xOf = (place: number) => Math.min(Math.max(view.x(place + shift), -4), view.width + 4);
  if (!first) return null;
  const pieces = joined(way.bands_mm);
  const spacing =
    way.focuses_mm.length > 1
      ? ((way.focuses_mm[1] as number) - (way.focuses_mm[0] as number)) * view.pxPerMm
      : 0;
  return (
    <Lane width={view.width} height={LANE} aria-hidden>
      {pieces.length === 0 && way.cover > 0 ? null : pieces.length === 0 ? (
        <rect
          x={xOf(first[0] as number) - 6}
          y={1}
          width={12}
          height={LANE - 2}
          fill="none"
          stroke={theme.trouble}
          strokeDasharray="3 2"
        />
      ) : (
        pieces.map(([from, to]) => (
          <rect
            key={from}
            x={xOf(from)}
            y={0.5}
            width={Math.max(xOf(to) - xOf(from), 2)}
            height={LANE - 1}
            fill={theme.sharp}
            stroke={theme.sharpEdge}
          />
        ))
      )}
      {spacing >= 3 ? (
        <path
          d={uprights(way.focuses_mm, view, shift, 1, LANE - 1)}
          stroke={theme.sharpEdge}
          strokeWidth={1}
        />
      ) : null}
    </Lane>
  );
});
