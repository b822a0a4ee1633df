/** How far one press of an arrow goes: by what matters for the quantity. */

type Step = (value: number, direction: 1 | -1, coarse: boolean) => number;

/** Equal steps, never below `least`; tidied so that 0.1 + 0.2 is 0.3. */
export function by(fine: number, coarse: number, least = 0): Step {
  return (value, direction, isCoarse) => {
    const step = isCoarse ? coarse : fine;
    const next = (Math.round(value / step + 1e-9 * direction) + direction) * step;
    return Math.max(tidy(next), least);
  };
}

/** Steps of about a hundredth of the value (a tenth when coarse), at 1, 2 or 5 times a power of ten. */
export const byShare: Step = (value, direction, coarse) => {
  if (value <= 0) return direction > 0 ? 0.1 : 0;
  const power = 10 ** Math.floor(Math.log10(value) + 1e-9);
  return by(power / (coarse ? 1 : 10), power, power / 100)(value, direction, false);
};

/** Along a list of values such as a lens's stops. */
export function along(values: readonly number[]): Step {
  return (value, direction, coarse) => {
    const count = coarse ? 3 : 1;
    const sorted = [...values].sort((a, b) => a - b);
    let next = value;
    for (let i = 0; i < count; i++) {
      const found =
        direction > 0
          ? sorted.find((candidate) => candidate > next * 1.001)
          : sorted.findLast((candidate) => candidate < next * 0.999);
      if (found === undefined) break;
      next = found;
    }
    return next;
  };
}

/** Shutter times by thirds of a stop, full stops when coarse. */
export const byThirds: Step = (value, direction, coarse) =>
  tidy(value * 2 ** ((direction * (coarse ? 3 : 1)) / 3));

function tidy(value: number): number {
  return Number(value.toPrecision(12));
}
