import { useState } from "react";
import styled from "styled-components";
import { Button } from "../controls/Button";
import { unbroken } from "../units/format";
import { useBench } from "./ShotContext";
import { stationOf, type StationId } from "./stations";

const List = styled.ul`
  margin: 10px 0 12px;
`;

const Item = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: start;
  padding: 7px 0 7px 10px;
  border-left: 3px solid ${({ theme }) => theme.line};
  margin-bottom: 6px;
  font-size: 13px;
  line-height: 1.35;
  &[data-caution] {
    border-left: 3px dashed ${({ theme }) => theme.trouble};
  }
  strong {
    display: block;
    font-weight: 600;
  }
  span {
    color: ${({ theme }) => theme.soft};
  }
  button {
    padding: 0 8px;
    font-size: 12.5px;
    border-color: ${({ theme }) => theme.line};
  }
`;

/** What to mind at a station: short, put aside for this shot when read, never in the way. */
export function Cautions({ station }: { station: StationId }) {
  const { plan, edit } = useBench();
  const [showAll, setShowAll] = useState(false);
  const here = (plan?.findings ?? []).filter(
    (finding) =>
      finding.severity !== "trouble" &&
      stationOf(finding.field) === station &&
      !atItsField(finding.field) &&
      finding.code !== "points.not_read",
  );
  const aside = here.filter((finding) => finding.put_aside);
  const shown = showAll ? here : here.filter((finding) => !finding.put_aside);
  const put = (code: string, away: boolean) =>
    edit((draft) => ({
      ...draft,
      put_aside: [...draft.put_aside.filter((each) => each !== code), ...(away ? [code] : [])],
    }));
  if (!here.length) return null;
  return (
    <section aria-label="To mind">
      <List>
        {shown.map((finding) => (
          <Item
            key={finding.code + finding.field}
            {...(finding.severity === "caution" ? { "data-caution": "" } : {})}
          >
            <div>
              <strong>{unbroken(finding.message)}</strong>
              <span>{unbroken(finding.remedy)}</span>
            </div>
            <Button
              aria-label={`${finding.put_aside ? "Show again" : "Put aside"}: ${finding.message}`}
              onPress={() => put(finding.code, !finding.put_aside)}
            >
              {finding.put_aside ? "Show again" : "Put aside"}
            </Button>
          </Item>
        ))}
      </List>
      {aside.length ? (
        <Button data-weight="quiet" onPress={() => setShowAll(!showAll)}>
          {showAll ? "Hide what was put aside" : `${aside.length} put aside: show`}
        </Button>
      ) : null}
    </section>
  );
}

/** Findings that a number field already says beneath itself. */
function atItsField(field: string): boolean {
  return /^\/(framing|subject\/depth_mm|aperture|focus_behind|stack|body|plane\/(read_back|strip|shift))/.test(
    field,
  );
}
