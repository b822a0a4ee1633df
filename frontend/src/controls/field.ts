import { FieldError, Input, Label, Text } from "react-aria-components";
import styled from "styled-components";
import { fonts } from "../look/theme";

/** Given to what holds a label, its box, and trouble or hint below it: among `Fields` boxes side by side are in line. */
export const AMONG_FIELDS = { "data-field": "" };

export const FieldLabel = styled(Label)`
  display: block;
  align-self: end;
  font-size: 12.5px;
  color: ${({ theme }) => theme.soft};
  margin-bottom: 3px;
`;

export const FieldInput = styled(Input)`
  width: 100%;
  min-width: 0;
  height: 40px;
  padding: 0 10px;
  border: 1px solid ${({ theme }) => theme.line};
  border-bottom: 2px solid ${({ theme }) => theme.strong};
  border-radius: 0;
  background: ${({ theme }) => theme.surface};
  font: 500 16px ${fonts.figures};
  &[data-text] {
    font: 500 14px ${fonts.text};
  }
  &[data-invalid] {
    border: 1px dashed ${({ theme }) => theme.trouble};
    border-bottom: 2px dashed ${({ theme }) => theme.trouble};
  }
`;

export const FieldTrouble = styled(FieldError)`
  display: block;
  margin-top: 4px;
  font-size: 12.5px;
  color: ${({ theme }) => theme.trouble};
`;

export const FieldHint = styled(Text)`
  display: block;
  &:empty {
    display: none;
  }
  margin-top: 3px;
  font-size: 12px;
  color: ${({ theme }) => theme.soft};
`;
