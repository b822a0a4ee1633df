import { memo, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { TextField } from "react-aria-components";
import styled from "styled-components";
import { usePreferences } from "../look/preferences";
import { store, stored, unstore } from "../look/storage";
import { editable } from "../units/format";
import { keyboardFor, parseQuantity, type Kind } from "../units/parse";
import { AMONG_FIELDS, FieldHint, FieldInput, FieldLabel, FieldTrouble } from "./field";

const Row = styled.div`
  position: relative;
  display: flex;
`;

const Grip = styled.span`
  position: absolute;
  right: 1px;
  top: 1px;
  bottom: 2px;
  min-width: 40px;
  padding: 0 9px;
  display: flex;
  align-items: center;
  justify-content: flex-end;
  color: ${({ theme }) => theme.soft};
  font-size: 12.5px;
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
`;

export interface QuantityFieldProps {
  label: string;
  kind: Kind;
  /** In the contract's unit; null shows an empty field. */
  value: number | null;
  /** The next value when stepped up (+1) or down (-1); `coarse` with Shift. */
  step: (value: number, direction: 1 | -1, coarse: boolean) => number;
  onChange: (value: number) => void;
  /** Given when empty means something (such as "not known"): emptying the field then calls it. */
  onEmpty?: () => void;
  emptyHint?: string;
  problem?: string | undefined;
  hint?: string | undefined;
  unit?: string;
  /** A name under which what is being typed is kept in this window, so that a reload does not lose it. */
  keptAs?: string;
}

/**
 * A number as it is typed at the table: units welcome, arrows step by what matters there, the unit can be dragged.
 * What cannot be read stays in the field with a sentence; nothing typed is thrown away.
 */
export const QuantityField = memo(function QuantityField(props: QuantityFieldProps) {
  const { label, kind, value, step, onChange, onEmpty, emptyHint, problem, hint } = props;
  const { units } = usePreferences();
  const [typed, setTyped] = useTyped(props.keptAs);
  const [refused, setRefused] = useState<string | null>(null);
  const scrub = useRef<{ x: number; value: number } | null>(null);
  const shown = typed ?? (value === null ? "" : editable(value, kind, units));
  const trouble = refused ?? problem;

  /** Whether nothing typed is left over. */
  const take = (): boolean => {
    if (typed === null) return true;
    if (typed.trim() === "" && onEmpty) {
      forget();
      onEmpty();
      return true;
    }
    const parsed = parseQuantity(typed, kind, units);
    if ("problem" in parsed) {
      setRefused(parsed.problem);
      return false;
    }
    forget();
    if (parsed.value !== value) onChange(parsed.value);
    return true;
  };
  const forget = () => {
    setTyped(null);
    setRefused(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter" && take()) leave(event);
    if (event.key === "Escape") {
      forget();
      leave(event);
      event.stopPropagation();
    }
    if ((event.key === "ArrowUp" || event.key === "ArrowDown") && value !== null) {
      event.preventDefault();
      forget();
      onChange(step(value, event.key === "ArrowUp" ? 1 : -1, event.shiftKey));
    }
  };
  const startScrub = (event: PointerEvent<HTMLSpanElement>) => {
    if (value === null) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    scrub.current = { x: event.clientX, value };
    forget();
  };
  const moveScrub = (event: PointerEvent) => {
    const from = scrub.current;
    if (from === null) return;
    const clicks = Math.trunc((event.clientX - from.x) / 8);
    if (clicks === 0) return;
    let next = from.value;
    for (let i = 0; i < Math.abs(clicks); i++) next = step(next, clicks > 0 ? 1 : -1, event.shiftKey);
    scrub.current = { x: from.x + clicks * 8, value: next };
    onChange(next);
  };

  return (
    <TextField
      {...AMONG_FIELDS}
      value={shown}
      onChange={(text) => {
        setTyped(text);
        setRefused(null);
      }}
      onBlur={take}
      onKeyDown={onKeyDown}
      isInvalid={Boolean(trouble)}
      validationBehavior="aria"
    >
      <FieldLabel>{label}</FieldLabel>
      <Row>
        <FieldInput inputMode={keyboardFor(kind, units)} placeholder={emptyHint} autoComplete="off" />
        <Grip
          aria-hidden
          title="Drag to change"
          onPointerDown={startScrub}
          onPointerMove={moveScrub}
          onPointerUp={() => (scrub.current = null)}
        >
          {shown === "" && emptyHint ? "" : (props.unit ?? unitOf(kind, units))}
        </Grip>
      </Row>
      {trouble ? <FieldTrouble>{trouble}</FieldTrouble> : null}
      {/* Always there, for the field's description is looked for once; empty it takes no room. */}
      <FieldHint slot="description">{trouble ? "" : hint}</FieldHint>
    </TextField>
  );
});

/** What is typed and not taken over yet; null: nothing is. */
function useTyped(name: string | undefined): [string | null, (typed: string | null) => void] {
  const key = name === undefined ? null : `just-plane.typed.${name}`;
  const [typed, setTyped] = useState<string | null>(() => (key === null ? null : stored("session", key)));
  const set = (next: string | null) => {
    setTyped(next);
    if (key === null) return;
    if (next === null) unstore("session", key);
    else store("session", key, next);
  };
  return [typed, set];
}

/** Out of the field: the next key is the page's again, and Tab goes on from here. */
function leave(event: KeyboardEvent) {
  if (event.target instanceof HTMLElement) event.target.blur();
}

function unitOf(kind: Kind, units: string): string {
  return { length: units, time: "s", percent: "%", ratio: "×", fNumber: "", count: "", plain: "" }[kind];
}
