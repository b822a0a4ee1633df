/** Bands that touch or overlap as one piece each, near to far: what is sharp without a gap. */
export function joined(bands: readonly (readonly number[])[]): [number, number][] {
  const pieces: [number, number][] = [];
  const sorted = bands
    .map(([near = 0, far = 0]) => [near, far] as [number, number])
    .filter(([near, far]) => far > near)
    .sort((one, other) => one[0] - other[0]);
  for (const [near, far] of sorted) {
    const last = pieces.at(-1);
    // Bands laid side by side lose a rounding between them.
    if (last && near <= last[1] + 1e-9 * Math.abs(last[1])) last[1] = Math.max(last[1], far);
    else pieces.push([near, far]);
  }
  return pieces;
}
