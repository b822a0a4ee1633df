import { useTheme } from "styled-components";

/** A hatching in brick, for what is missing: named in `fill="url(#id)"`. On a picture it stands on a veil. */
export function Hatch({ id, veiled = false }: { id: string; veiled?: boolean }) {
  const theme = useTheme();
  return (
    <defs>
      <pattern id={id} width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        {veiled ? <rect width={6} height={6} fill={theme.ground} fillOpacity={0.35} /> : null}
        <line x1={0} x2={0} y1={0} y2={6} stroke={theme.trouble} strokeWidth={veiled ? 2.5 : 1.5} />
      </pattern>
    </defs>
  );
}
