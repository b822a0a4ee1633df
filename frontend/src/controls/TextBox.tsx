import { useEffect, useState, type Ref } from "react";
import { TextArea, TextField } from "react-aria-components";
import styled from "styled-components";
import { AMONG_FIELDS, FieldInput, FieldLabel, FieldTrouble } from "./field";

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
  boxRef?: Ref<HTMLInputElement>;
}

const QUIET_MS = 500;

/** Words, taken over when typing rests, and when the field is left. */
export function TextBox(props: TextBoxProps) {
  const { label, value, onChange, lines = false, problem, maxLength, boxRef } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    if (typed !== null && typed !== value) onChange(typed);
    setTyped(null);
  };
  // Kept while it is being typed, not only when the field is left: a window may close in mid-sentence.
  useEffect(() => {
    if (typed === null || typed === value) return;
    const timer = setTimeout(() => onChange(typed), QUIET_MS);
    return () => clearTimeout(timer);
  }, [typed, value, onChange]);
  return (
    <TextField
      {...AMONG_FIELDS}
      value={typed ?? value}
      onChange={setTyped}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === "Enter" && !lines) take();
        // Within a form Enter sends it, which a box that is left cannot.
        const sends = event.target instanceof HTMLInputElement && event.target.form !== null;
        const leaves = event.key === "Escape" || (event.key === "Enter" && !lines && !sends);
        if (leaves && event.target instanceof HTMLElement) event.target.blur();
      }}
      isInvalid={Boolean(problem)}
      validationBehavior="aria"
      maxLength={maxLength}
    >
      <FieldLabel>{label}</FieldLabel>
      {lines ? <Area /> : <FieldInput ref={boxRef} data-text="" autoComplete="off" />}
      {problem ? <FieldTrouble>{problem}</FieldTrouble> : null}
    </TextField>
  );
}
