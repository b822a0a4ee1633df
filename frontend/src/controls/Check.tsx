import { memo } from "react";
import { Checkbox } from "react-aria-components";
import styled from "styled-components";

const Box = styled(Checkbox)`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 40px;
  cursor: pointer;
  font-size: 13.5px;
`;

const Mark = styled.span`
  flex: none;
  width: 20px;
  height: 20px;
  border: 1.5px solid ${({ theme }) => theme.strong};
  display: grid;
  place-items: center;
  font-size: 14px;
  line-height: 1;
`;

/** Yes or no. */
export const Check = memo(function Check({
  label,
  value,
  onChange,
  bare = false,
}: {
  label: string;
  value: boolean;
  onChange: (on: boolean) => void;
  /** The box alone; the label is spoken but not shown, for lists whose heads say it. */
  bare?: boolean;
}) {
  return (
    <Box isSelected={value} onChange={onChange} {...(bare ? { "aria-label": label } : {})}>
      <Mark aria-hidden>{value ? "✓" : ""}</Mark>
      {bare ? null : label}
    </Box>
  );
});
