import { useEffect, useState } from "react";
import { SearchField } from "react-aria-components";
import styled from "styled-components";
import { FieldInput, FieldLabel } from "../../controls/field";
import { Pick } from "../../controls/Pick";

export interface Asked {
  text: string;
  heading: string;
  sort: "changed" | "name" | "hold" | "depth";
}

export const ANY: Asked = { text: "", heading: "", sort: "changed" };

const SORTS = [
  { id: "changed", label: "last changed first" },
  { id: "name", label: "by name" },
  { id: "hold", label: "what keeps shortest first" },
  { id: "depth", label: "the deepest first" },
] as const;

const Bar = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 220px 240px;
  gap: 10px;
  margin-bottom: 14px;
  @media (max-width: 720px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const QUIET_MS = 250;

interface LookForProps {
  asked: Asked;
  headings: readonly string[];
  onChange: (asked: Asked) => void;
}

/** What is looked for in the list, and its order. Under a heading, what keeps shortest is shot first. */
export function LookFor({ asked, headings, onChange }: LookForProps) {
  const [typed, setTyped] = useState(asked.text);
  useEffect(() => {
    if (typed === asked.text) return;
    const timer = setTimeout(() => onChange({ ...asked, text: typed }), QUIET_MS);
    return () => clearTimeout(timer);
  }, [typed, asked, onChange]);
  return (
    <Bar>
      <SearchField value={typed} onChange={setTyped} maxLength={120}>
        <FieldLabel>Look for</FieldLabel>
        <FieldInput data-text="" autoComplete="off" placeholder="a name, a subject, a word of the notes" />
      </SearchField>
      <Pick
        label="Heading"
        value={asked.heading}
        options={[{ id: "", label: "any" }, ...headings.map((heading) => ({ id: heading, label: heading }))]}
        onChange={(heading) => onChange({ ...asked, heading, sort: heading ? "hold" : asked.sort })}
      />
      <Pick
        label="Order"
        value={asked.sort}
        options={SORTS}
        onChange={(sort) => onChange({ ...asked, sort: sort as Asked["sort"] })}
      />
    </Bar>
  );
}
