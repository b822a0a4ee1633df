import { memo } from "react";
import { Link } from "react-aria-components";
import styled from "styled-components";
import type { TapeAnswer } from "./tapeAnswers";
import { same } from "../../shot/editing/meaning";
import { STATIONS, type StationId } from "../../shot/stations";

const Strip = styled.nav`
  display: grid;
  grid-template-columns: repeat(9, minmax(0, 1fr));
  border-bottom: 1px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.surface};
`;

const Station = styled(Link)`
  display: block;
  min-height: 66px;
  padding: 7px 8px 5px 12px;
  text-decoration: none;
  border-bottom: 4px solid transparent;
  outline-offset: -3px !important;
  cursor: pointer;
  @media (max-width: 1100px) {
    padding: 7px 4px 5px 9px;
  }
  & + & {
    border-left: 1px solid ${({ theme }) => theme.line};
  }
  &[aria-current] {
    background: ${({ theme }) => theme.ground};
    border-bottom-color: ${({ theme }) => theme.strong};
  }
  & > * {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Title = styled.span`
  font-size: 12.5px;
  color: ${({ theme }) => theme.soft};
`;

const Answer = styled.span`
  font-weight: 680;
  font-size: 15px;
  line-height: 1.35;
  @media (max-width: 1100px) {
    font-size: 14px;
    letter-spacing: -0.01em;
  }
`;

const Small = styled.span`
  font-size: 11.5px;
  color: ${({ theme }) => theme.soft};
  [data-trouble] > & {
    color: ${({ theme }) => theme.trouble};
    text-decoration: underline dashed 1px;
    text-underline-offset: 3px;
  }
`;

interface TapeProps {
  shotId: string;
  current: StationId;
  answers: Record<StationId, TapeAnswer>;
}

/** The order of work as one strip: navigation, progress and summary at once. Drawn anew when what it says changes. */
export const Tape = memo(function Tape({ shotId, current, answers }: TapeProps) {
  return (
    <Strip aria-label="Order of work">
      {STATIONS.map((station, index) => (
        <OneStation
          key={station.id}
          number={index + 1}
          title={station.title}
          href={`/shots/${shotId}/${station.id}`}
          current={station.id === current}
          {...answers[station.id]}
        />
      ))}
    </Strip>
  );
}, same);

interface OneStationProps extends TapeAnswer {
  number: number;
  title: string;
  href: string;
  current: boolean;
}

const OneStation = memo(function OneStation(props: OneStationProps) {
  const { number, title, href, current, answer, small, trouble } = props;
  return (
    <Station
      href={href}
      aria-current={current ? "page" : undefined}
      {...(trouble ? { "data-trouble": "" } : {})}
    >
      <Title>
        {number}&ensp;{title}
      </Title>
      <Answer>{answer}</Answer>
      <Small>{small}</Small>
    </Station>
  );
});
