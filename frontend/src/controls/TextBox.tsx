import { useState } from "react";
import { TextArea, TextField } from "react-aria-components";
import styled from "styled-components";
import { FieldInput, FieldLabel, FieldTrouble } from "./field";

const Area = styled(TextArea)`
  width: 100%;
  min-height: 72px;
  padding: 8px 10px;
  border: 1px solid ${({ theme }) => theme.line};
  border-radius: 0;
  background: ${({ theme }) => theme.surface};
  resize: vertical;
`;

interface TextBoxProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  lines?: boolean;
  problem?: string | undefined;
  maxLength?: number;
}

/** Words, taken over when the field is left. */
export function TextBox({ label, value, onChange, lines = false, problem, maxLength }: TextBoxProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    if (typed !== null && typed !== value) onChange(typed);
    setTyped(null);
  };
  return (
    <TextField
      value={typed ?? value}
      onChange={setTyped}
      onBlur={take}
      onKeyDown={(event) => event.key === "Enter" && !lines && take()}
      isInvalid={Boolean(problem)}
      validationBehavior="aria"
      maxLength={maxLength}
    >
      <FieldLabel>{label}</FieldLabel>
      {lines ? <Area /> : <FieldInput data-text="" autoComplete="off" />}
      {problem ? <FieldTrouble>{problem}</FieldTrouble> : null}
    </TextField>
  );
}
