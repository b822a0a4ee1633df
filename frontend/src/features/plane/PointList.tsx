import { memo, useCallback } from "react";
import { Button as Row } from "react-aria-components";
import styled from "styled-components";
import type { Point } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { Button } from "../../controls/Button";
import { isRoomy } from "../../controls/Fold";
import { doubted, length, size } from "../../units/format";
import { Section } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";
import { OneMore } from "../../shot/OneMore";
import { newFlatPart, newPoint, planeOf, withPlane } from "../../shot/moves";
import { PointEditor } from "./PointEditor";
import { RailCounts } from "./RailCounts";

const List = styled.ul`
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
  border-bottom: 1px solid ${({ theme }) => theme.line};
`;

const Line = styled(Row)`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1px;
  width: 100%;
  min-height: 40px;
  padding: 5px 8px;
  border: 0;
  border-top: 1px solid ${({ theme }) => theme.line};
  background: transparent;
  text-align: left;
  cursor: pointer;
  @media (max-height: 789px) {
    grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
    align-items: center;
    gap: 8px;
  }
  &[aria-expanded="true"] {
    background: ${({ theme }) => theme.raised};
    box-shadow: inset 3px 0 0 ${({ theme }) => theme.strong};
  }
  strong {
    font-weight: 600;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
  small[data-trouble] {
    color: ${({ theme }) => theme.trouble};
  }
`;

const Adding = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 8px;
`;

/** The points by name, with what each makes of the setting; the one chosen is open. */
export function PointList() {
  const { shot, plan, edit, point: selected, selectPoint } = useBench();
  const points = planeOf(shot).points;
  const add = (point: Point) => {
    edit((draft) => withPlane(draft, { points: [...planeOf(draft).points, point] }));
    selectPoint(point.id);
  };
  const toggle = useCallback(
    (id: string, wasOpen: boolean) => selectPoint(wasOpen ? null : id),
    [selectPoint],
  );
  return (
    <>
      <Section>Points</Section>
      {points.length ? (
        <List>
          {points.map((point, index) => (
            <PointRow
              key={point.id}
              point={point}
              index={index}
              isOpen={point.id === selected}
              onToggle={toggle}
            />
          ))}
        </List>
      ) : null}
      <OneMore at="/plane/points" held={points.length} what="points and flat parts">
        <Adding>
          <Button onPress={() => add(newPoint(points, 0.5, 0.5))}>Add a point</Button>
          <Button onPress={() => add(newFlatPart(points))}>Add a flat part</Button>
        </Adding>
      </OneMore>
      {points.some((point) => point.depth.by === "rail") && (isRoomy() || !plan?.plane?.setting) ? (
        <RailCounts />
      ) : null}
    </>
  );
}

interface PointRowProps {
  point: Point;
  index: number;
  isOpen: boolean;
  onToggle: (id: string, wasOpen: boolean) => void;
}

/** One point. While another is moved nothing of its row is drawn anew but what the answer says of it. */
const PointRow = memo(function PointRow({ point, index, isOpen, onToggle }: PointRowProps) {
  return (
    <li>
      <Line aria-expanded={isOpen} onPress={() => onToggle(point.id, isOpen)}>
        <strong>{point.name || `Point ${point.id}`}</strong>
        <Told point={point} />
      </Line>
      {isOpen ? <PointEditor point={point} index={index} /> : null}
    </li>
  );
});

/** What the answer says of a point, in a few words. */
function Told({ point }: { point: Point }) {
  const { plan } = useBench();
  const { units } = usePreferences();
  const read =
    plan?.plane?.points.filter((answer) => answer.id === point.id && answer.behind_nearest_mm !== null) ?? [];
  if (!read.length) return <small data-trouble="">not read yet</small>;
  const depth = Math.min(...read.map((each) => each.behind_nearest_mm as number));
  const slacks = read
    .map((each) => each.slack_mm)
    .filter((slack): slack is number => typeof slack === "number");
  const slack = slacks.length ? Math.min(...slacks) : null;
  const unsure = Math.max(...read.map((each) => each.slack_uncertainty_mm ?? 0));
  const carries = read.some((each) => each.carries) && point.wanted === "sharp" ? ", carries the limit" : "";
  if (slack === null) {
    const { depth: read } = point;
    return read.by === "angle" ? (
      <small>
        {read.angle_deg}° from square, {size(read.length_mm, read.width_mm, units)}
      </small>
    ) : (
      <small>{length(depth, units)} deep</small>
    );
  }
  if (point.wanted === "soft") {
    return slack < 0 ? <small>soft, as wanted</small> : <small data-trouble="">sharp, should be soft</small>;
  }
  return slack >= 0 ? (
    <small>
      {doubted(slack, unsure, units)} to spare{carries}
    </small>
  ) : (
    <small data-trouble="">misses by {length(-slack, units)}</small>
  );
}
