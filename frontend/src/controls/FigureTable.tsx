import styled from "styled-components";
import { fonts } from "../look/theme";

/** A small table of figures: words on the left, numbers lined up on the right. */
export const FigureTable = styled.table`
  width: 100%;
  border-collapse: collapse;
  font: 500 13px ${fonts.figures};
  th {
    font: 400 12.5px ${fonts.text};
    color: ${({ theme }) => theme.soft};
    text-align: right;
    padding: 4px 0;
  }
  td {
    text-align: right;
    padding: 4px 0;
    border-top: 1px solid ${({ theme }) => theme.line};
  }
  th:first-child,
  td:first-child {
    text-align: left;
    font-family: ${fonts.text};
  }
  td + td,
  th + th {
    padding-left: 8px;
    white-space: nowrap;
  }
  tr[data-chosen] td {
    font-weight: 750;
  }
`;
