/**
 * Fields of the shot, bound by JSON pointer: what stands there, how it is changed, what is wrong with it, what it is
 * called and how far it may go all follow from the place.
 */
import { useCallback } from "react";
import { shotField, within } from "../api/fields";
import { Check } from "../controls/Check";
import { Pick } from "../controls/Pick";
import { QuantityField, type QuantityFieldProps } from "../controls/QuantityField";
import { Segments } from "../controls/Segments";
import { TextBox } from "../controls/TextBox";
import { useSteady } from "../controls/useSteady";
import type { Kind } from "../units/parse";
import { valueAt, withValueAt } from "../api/pointer";
import { useBench } from "./ShotContext";

/** What is at a place of the shot, and how to put something else there. */
export function useShotField<T>(at: string) {
  const { shot, edit, problemAt, cautionAt } = useBench();
  const facts = shotField(at);
  const value = valueAt(shot, at) ?? facts.default ?? null;
  return {
    facts,
    value: value as T,
    set: useCallback((next: T) => edit((draft) => withValueAt(draft, at, next)), [edit, at]),
    problem: problemAt(at),
    caution: cautionAt(at),
  };
}

interface QuantityProps extends Partial<
  Some<QuantityFieldProps, "label" | "hint" | "unit" | "emptyHint" | "kind" | "onChange">
> {
  at: string;
  step: QuantityFieldProps["step"];
}
type Some<T, K extends keyof T> = { [Key in K]: T[Key] };

/** A number of the shot. */
export function ShotQuantity({ at, step, label, hint, kind, ...more }: QuantityProps) {
  const { facts, value, set, problem, caution } = useShotField<number | null>(at);
  const { shotId } = useBench();
  const bounded = useSteady(within(facts, step));
  const empty = useCallback(() => set(null), [set]);
  return (
    <QuantityField
      label={label ?? facts.title}
      kind={kind ?? (facts.kind as Kind)}
      value={value}
      step={bounded}
      onChange={set}
      {...(facts.empty ? { onEmpty: empty } : {})}
      problem={problem}
      hint={caution ?? hint}
      keptAs={`${shotId}${at}`}
      {...more}
    />
  );
}

interface ChoiceProps<T extends string> {
  at: string;
  label?: string;
  options: readonly { id: T; label: string }[];
}

/** One of a few, all in sight. */
export function ShotSegments<T extends string>({ at, label, options }: ChoiceProps<T>) {
  const { facts, value, set } = useShotField<T>(at);
  return <Segments label={label ?? facts.title} value={value} options={options} onChange={set} />;
}

/** One of many, from a list that opens. */
export function ShotPick<T extends string>({ at, label, options }: ChoiceProps<T>) {
  const { facts, value, set } = useShotField<T>(at);
  const choose = useSteady((id: string) => {
    const chosen = options.find((option) => option.id === id);
    if (chosen) set(chosen.id);
  });
  return <Pick label={label ?? facts.title} value={value} options={options} onChange={choose} />;
}

/** Yes or no. */
export function ShotCheck({ at, label }: { at: string; label?: string }) {
  const { facts, value, set } = useShotField<boolean>(at);
  return <Check label={label ?? facts.title} value={value} onChange={set} />;
}

/** Words. */
export function ShotText({ at, lines = false }: { at: string; lines?: boolean }) {
  const { facts, value, set, problem } = useShotField<string>(at);
  return (
    <TextBox
      label={facts.title}
      value={value}
      onChange={set}
      lines={lines}
      problem={problem}
      {...(facts.longest === undefined ? {} : { maxLength: facts.longest })}
    />
  );
}
