import { Children, type ReactNode } from "react";
import styled from "styled-components";
import { fonts } from "../look/theme";
import { unbroken } from "../units/format";

export const Heading = styled.h1`
  font-size: 16.5px;
  font-weight: 680;
  letter-spacing: -0.005em;
`;

/** Sentences in it keep their numbers with their units. */
export function told({ children }: { children?: ReactNode }) {
  return { children: Children.map(children, (part) => (typeof part === "string" ? unbroken(part) : part)) };
}

export const Lead = styled.p.attrs<{ children?: ReactNode }>(told)`
  color: ${({ theme }) => theme.soft};
  margin: 2px 0 14px;
`;

export const Fields = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: 10px;
  align-items: start;
  margin-bottom: 4px;
  & > * {
    margin-bottom: 12px;
  }
  /* Label, box, trouble and hint stand in rows of this grid: boxes are in line though one label takes two lines. */
  & > [data-field] {
    display: grid;
    grid-template: subgrid / minmax(0, 1fr);
    grid-row: span 4;
  }
`;

export const Wide = styled.div`
  grid-column: 1 / -1;
`;
export const Section = styled.h2`
  font-size: 13px;
  font-weight: 650;
  margin: 6px 0 8px;
  padding-top: 12px;
  border-top: 1px solid ${({ theme }) => theme.line};
`;

/** The answer of a station, largest words on its panel. */
export const AnswerBox = styled.div.attrs<{ children?: ReactNode }>(told)`
  margin: 4px 0 16px;
  padding: 11px 14px;
  border-left: 4px solid ${({ theme }) => theme.strong};
  background: ${({ theme }) => theme.raised};
  strong {
    display: block;
    font-size: 16px;
    font-weight: 680;
    line-height: 1.3;
  }
  /* In a narrow panel what stands on a button takes two lines rather than leave the box. */
  button {
    max-width: 100%;
    padding-block: 6px;
    white-space: normal;
  }
  > button {
    margin-top: 8px;
  }
  &[data-trouble] {
    border-left: 4px dashed ${({ theme }) => theme.trouble};
  }
`;

export const Facts = styled.dl`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 5px 10px;
  margin-bottom: 16px;
  dt {
    color: ${({ theme }) => theme.soft};
  }
  dd {
    text-align: right;
    font: 500 13.5px ${fonts.figures};
  }
`;
