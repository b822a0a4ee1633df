import { memo } from "react";
import { Radio, RadioGroup } from "react-aria-components";
import styled from "styled-components";
import { AMONG_FIELDS, FieldLabel } from "./field";
import { useSteady } from "./useSteady";

const Group = styled(RadioGroup)`
  display: block;
`;

const Strip = styled.div`
  display: flex;
  border: 1px solid ${({ theme }) => theme.strong};
`;

const Segment = styled(Radio)`
  flex: 1 1 0;
  min-height: 40px;
  display: flex;
  align-items: center;
  justify-content: center;
  text-align: center;
  padding: 2px 6px;
  font-size: 13px;
  line-height: 1.2;
  cursor: pointer;
  & + & {
    border-left: 1px solid ${({ theme }) => theme.line};
  }
  &[data-selected] {
    background: ${({ theme }) => theme.strong};
    color: ${({ theme }) => theme.onStrong};
    font-weight: 600;
  }
`;

interface SegmentsProps<T extends string> {
  label: string;
  value: T;
  options: readonly { id: T; label: string }[];
  onChange: (value: T) => void;
}

/** One of a few, all in sight. It is drawn anew only when another is set; `options` should stay the same array. */
export function Segments<T extends string>({ label, value, options, onChange }: SegmentsProps<T>) {
  const choose = useSteady((chosen: string) => onChange(chosen as T));
  return <Choice label={label} value={value} options={options} onChange={choose} />;
}

const Choice = memo(function Choice({ label, value, options, onChange }: SegmentsProps<string>) {
  return (
    <Group {...AMONG_FIELDS} value={value} onChange={onChange} orientation="horizontal">
      <FieldLabel>{label}</FieldLabel>
      <Strip>
        {options.map((option) => (
          <Segment key={option.id} value={option.id}>
            {option.label}
          </Segment>
        ))}
      </Strip>
    </Group>
  );
});
