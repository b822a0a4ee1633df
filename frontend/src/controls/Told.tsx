import styled from "styled-components";
import { fonts } from "../look/theme";
import { AMONG_FIELDS } from "./field";

const Box = styled.div`
  span {
    display: block;
    align-self: end;
    font-size: 12.5px;
    color: ${({ theme }) => theme.soft};
    margin-bottom: 3px;
  }
  output {
    display: flex;
    align-items: center;
    height: 40px;
    font: 500 16px ${fonts.figures};
  }
  small {
    display: block;
    margin-top: 3px;
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** A value that is worked out where others are typed. */
export function Told({ label, text, hint }: { label: string; text: string; hint: string }) {
  return (
    <Box {...AMONG_FIELDS}>
      <span>{label}</span>
      <output aria-label={label}>{text}</output>
      <small>{hint}</small>
    </Box>
  );
}
