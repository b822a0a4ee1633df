import { memo } from "react";
import { Button, ListBox, ListBoxItem, Popover, Select, SelectValue } from "react-aria-components";
import styled from "styled-components";
import { AMONG_FIELDS, FieldLabel } from "./field";

const Trigger = styled(Button)`
  width: 100%;
  min-height: 40px;
  padding: 4px 10px;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  text-align: left;
  border: 1px solid ${({ theme }) => theme.line};
  border-bottom: 2px solid ${({ theme }) => theme.strong};
  border-radius: 0;
  background: ${({ theme }) => theme.surface};
  font-weight: 500;
  cursor: pointer;
  & > span:first-child {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Sheet = styled(Popover)`
  min-width: var(--trigger-width);
  max-height: 320px;
  overflow: auto;
  background: ${({ theme }) => theme.surface};
  border: 1px solid ${({ theme }) => theme.strong};
  color: ${({ theme }) => theme.ink};
`;

const Entry = styled(ListBoxItem)`
  min-height: 40px;
  padding: 8px 12px;
  cursor: pointer;
  &[data-focused] {
    background: ${({ theme }) => theme.raised};
  }
  &[data-selected] {
    font-weight: 650;
  }
`;

interface PickProps {
  label: string;
  /** Null when what is set is none of the options. */
  value: string | null;
  options: readonly { id: string; label: string }[];
  onChange: (id: string) => void;
  placeholder?: string;
}

/** One of many, from a list that opens. */
export const Pick = memo(function Pick({
  label,
  value,
  options,
  onChange,
  placeholder = "Choose",
}: PickProps) {
  return (
    <Select
      {...AMONG_FIELDS}
      value={value}
      onChange={(key) => key !== null && onChange(String(key))}
      placeholder={placeholder}
    >
      <FieldLabel>{label}</FieldLabel>
      <Trigger>
        <SelectValue />
        <span aria-hidden>▾</span>
      </Trigger>
      <Sheet>
        <ListBox>
          {options.map((option) => (
            <Entry key={option.id} id={option.id} textValue={option.label}>
              {option.label}
            </Entry>
          ))}
        </ListBox>
      </Sheet>
    </Select>
  );
});
