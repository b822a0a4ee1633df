import styled from "styled-components";
import type { CheckReport } from "../../api/types";
import { Button } from "../../controls/Button";
import { unbroken } from "../../units/format";
import { WHY_LEFT_OUT, weightOf } from "./words";

const List = styled.ul`
  list-style: none;
  padding: 0;
  margin: 0 0 16px;
  display: grid;
  gap: 10px;
`;

const Item = styled.li`
  padding: 2px 0 2px 12px;
  border-left: 4px solid ${({ theme }) => theme.line};
  overflow-wrap: anywhere;
  strong {
    display: block;
    font-weight: 650;
    line-height: 1.3;
  }
  span {
    color: ${({ theme }) => theme.soft};
  }
  button {
    display: block;
    margin-top: 6px;
  }
  &[data-weight="dear"] {
    border-left: 4px dashed ${({ theme }) => theme.trouble};
  }
  &[data-weight="work"] {
    border-left: 4px solid ${({ theme }) => theme.sharpEdge};
  }
`;

interface Props {
  report: CheckReport;
  /** Frames that are used though they would be left out. */
  putBack: readonly string[];
  /** Look again, with these put back; null: what is shown is of frames that matter no more. */
  onPutBack: ((names: string[]) => void) | null;
  busy: boolean;
}

/** What was found, in the order of what it would cost at home; a frame that was left out can be put back. */
export function Findings({ report, putBack, onPutBack, busy }: Props) {
  if (!report.findings.length) return null;
  return (
    <List aria-label="What was found">
      {report.findings.map((finding, index) => {
        const ofOne = finding.frame !== null && !finding.frames.length;
        const frame = ofOne ? report.frames[finding.frame ?? 0] : undefined;
        const left = frame && WHY_LEFT_OUT.includes(frame.why_not) ? frame.file : null;
        const back = frame && putBack.includes(frame.file) && WHY_LEFT_OUT.includes(finding.code);
        return (
          <Item key={`${finding.code}-${index}`} data-weight={weightOf(finding)}>
            <strong>{unbroken(finding.message)}</strong>
            <span>{unbroken(finding.remedy)}</span>
            {left && onPutBack ? (
              <Button isPending={busy} onPress={() => onPutBack([...putBack, left])}>
                Use it all the same
              </Button>
            ) : null}
            {back && onPutBack ? (
              <Button
                isPending={busy}
                onPress={() => onPutBack(putBack.filter((name) => name !== frame.file))}
              >
                Leave it out again
              </Button>
            ) : null}
          </Item>
        );
      })}
    </List>
  );
}
