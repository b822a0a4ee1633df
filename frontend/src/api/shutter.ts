/** Shutter times as cameras mark them; the marks come from the contract's document. */
import { seconds } from "../units/format";
import written from "./fields.json";

const MARKS = (written.shutters as [number, string][]).map(
  ([value, mark]) => [Math.log(value), mark] as const,
);
const BESIDE = 0.1;

/** `1/60 s`, `0.8 s`; past what cameras mark as any time. */
export function shutter(value: number): string {
  const at = Math.log(value);
  const [first, last] = [MARKS[0]?.[0] ?? 0, MARKS.at(-1)?.[0] ?? 0];
  if (!(at >= first - BESIDE && at <= last + BESIDE)) return seconds(value);
  const nearest = MARKS.reduce((best, each) =>
    Math.abs(each[0] - at) < Math.abs(best[0] - at) ? each : best,
  );
  return `${nearest[1]} s`;
}
