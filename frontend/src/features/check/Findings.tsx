import styled from "styled-components";
import type { CheckReport } from "../../api/types";
import { weightOf } from "./words";

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
  &[data-weight="dear"] {
    border-left: 4px dashed ${({ theme }) => theme.trouble};
  }
  &[data-weight="work"] {
    border-left: 4px solid ${({ theme }) => theme.sharpEdge};
  }
`;

/** What was found, in the order of what it would cost at home. */
export function Findings({ report }: { report: CheckReport }) {
  if (!report.findings.length) return null;
  return (
    <List aria-label="What was found">
      {report.findings.map((finding, index) => (
        <Item key={`${finding.code}-${index}`} data-weight={weightOf(finding)}>
          <strong>{finding.message}</strong>
          <span>{finding.remedy}</span>
        </Item>
      ))}
    </List>
  );
}
