import styled, { useTheme } from "styled-components";
import type { PlaneSection } from "../../api/types";
import { fonts } from "../../look/theme";

type Setting = NonNullable<PlaneSection["setting"]>;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  margin: 0 0 10px;
  figure {
    margin: 0;
  }
  svg {
    width: 100%;
    height: auto;
  }
  figcaption {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
    text-align: center;
  }
`;

const R = 46;

/** The two dials of a tilting lens as seen from behind the camera: toward where it faces, and how far. */
export function Dials({ setting, upright }: { setting: Setting; upright: boolean }) {
  const theme = useTheme();
  const turn = (setting.faces_deg * Math.PI) / 180;
  const [x, y] = [Math.cos(turn) * R, -Math.sin(turn) * R];
  const axis = [-y, x] as const;
  const across = Math.max(10, Math.ceil(setting.tilt_deg / 5) * 5);
  const angle = (degrees: number) => -Math.PI / 2 + ((degrees / across) * Math.PI) / 3;
  const at = (degrees: number, radius: number) =>
    `${(Math.cos(angle(degrees)) * radius).toFixed(1)} ${(Math.sin(angle(degrees)) * radius + 34).toFixed(1)}`;
  return (
    <Pair
      role="group"
      aria-label={`The dials from behind: facing ${setting.faces}, ${setting.tilt_deg.toFixed(1)} degrees`}
    >
      <figure>
        <svg viewBox="-66 -66 132 132" aria-hidden>
          <rect
            x={upright ? -40 : -60}
            y={upright ? -60 : -40}
            width={upright ? 80 : 120}
            height={upright ? 120 : 80}
            fill="none"
            stroke={theme.line}
          />
          <circle r={R} fill={theme.surface} stroke={theme.strong} strokeWidth={1.5} />
          <path d={ticks(15, 5) + ticks(90, 10)} stroke={theme.strong} />
          <path
            d={`M${axis[0] * 0.8} ${axis[1] * 0.8}L${-axis[0] * 0.8} ${-axis[1] * 0.8}`}
            stroke={theme.soft}
            strokeDasharray="4 3"
          />
          <path d={`M0 0L${x * 0.8} ${y * 0.8}`} stroke={theme.sharpEdge} strokeWidth={4} />
          <circle cx={x * 0.8} cy={y * 0.8} r={6} fill={theme.sharp} stroke={theme.sharpEdge} />
          <text y={-50} textAnchor="middle" fontSize={10} fill={theme.soft}>
            top
          </text>
        </svg>
        <figcaption>{rotationWords(setting.rotation_deg)}, from behind</figcaption>
      </figure>
      <figure>
        <svg viewBox="-66 -66 132 132" aria-hidden>
          <path
            d={`M${at(-across, 74)}A74 74 0 0 1 ${at(across, 74)}`}
            fill="none"
            stroke={theme.strong}
            strokeWidth={1.5}
          />
          <path
            d={Array.from({ length: 2 * across + 1 }, (_, index) => index - across)
              .map((degrees) => `M${at(degrees, 74)}L${at(degrees, degrees % 5 === 0 ? 64 : 69)}`)
              .join("")}
            stroke={theme.strong}
          />
          {[-across, 0, across].map((degrees) => (
            <text
              key={degrees}
              transform={`translate(${at(degrees, 54)})`}
              textAnchor="middle"
              fontSize={11}
              fontFamily={fonts.figures}
              fill={theme.soft}
            >
              {Math.abs(degrees)}
            </text>
          ))}
          <path d={`M0 34L${at(setting.tilt_deg, 70)}`} stroke={theme.sharpEdge} strokeWidth={4} />
          <circle cx={0} cy={34} r={4} fill={theme.strong} />
          <text
            y={58}
            textAnchor="middle"
            fontSize={15}
            fontFamily={fonts.figures}
            fontWeight={600}
            fill={theme.ink}
          >
            {setting.tilt_deg.toFixed(1)}°
          </text>
        </svg>
        <figcaption>tilt scale</figcaption>
      </figure>
    </Pair>
  );
}

function ticks(every: number, long: number): string {
  return Array.from({ length: 360 / every }, (_, index) => {
    const turn = (index * every * Math.PI) / 180;
    const [x, y] = [Math.cos(turn), Math.sin(turn)];
    return `M${(x * R).toFixed(1)} ${(y * R).toFixed(1)}L${(x * (R - long)).toFixed(1)} ${(y * (R - long)).toFixed(1)}`;
  }).join("");
}

function rotationWords(degrees: number): string {
  const size = Math.abs(degrees);
  if (size < 1) return "not turned";
  return `${size.toFixed(0)}° ${degrees > 0 ? "clockwise" : "anticlockwise"}`;
}
