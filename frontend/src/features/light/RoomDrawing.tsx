import styled, { useTheme } from "styled-components";
import type { Reach, Room } from "../../api/types";
import { scaleWords } from "../../drawing/scaleWords";
import { useSize } from "../../drawing/useSize";
import { usePreferences } from "../../look/preferences";
import { useBench } from "../../shot/ShotContext";
import { length } from "../../units/format";
import { roomView, type RoomView } from "./roomView";

const Box = styled.div`
  position: absolute;
  inset: 0;
  svg {
    position: absolute;
  }
  text {
    font-size: 12px;
  }
`;

const CHARACTER_PX = 6.5;

/** The set from above, to scale: what the camera sees, what its lens shades, and what stands there. */
export function RoomDrawing() {
  const { plan } = useBench();
  const theme = useTheme();
  const { units } = usePreferences();
  const [box, size] = useSize<HTMLDivElement>();
  const { room, reach } = plan ?? {};
  if (!room || !reach || size.width < 80 || size.height < 60) return <Box ref={box} />;
  const view = roomView(room, size.width, size.height);
  const words = `The set from above: ${length(room.free_mm, units)} between lens and subject, the lens shades ${room.shade_deg.toFixed(0)}° to either side.`;
  return (
    <Box ref={box}>
      <svg width={size.width} height={size.height} role="img" aria-label={words}>
        <Seen room={room} view={view} width={size.width} />
        <Rig reach={reach} room={room} view={view} />
        {room.things.map((thing) => (
          <Thing key={thing.index} thing={thing} view={view} width={size.width} />
        ))}
        <Free room={room} view={view} words={length(room.free_mm, units)} />
        <text x={8} y={16} fill={theme.soft}>
          from above
        </text>
        <text x={size.width - 8} y={16} textAnchor="end" fill={theme.soft}>
          {scaleWords(view.pxPerMm)}
        </text>
        {room.unplaced.length ? (
          <text x={8} y={size.height - 8} fill={theme.soft}>
            not placed yet: {room.unplaced.join(", ")}
          </text>
        ) : null}
      </svg>
    </Box>
  );
}

interface PartProps {
  room: Room;
  view: RoomView;
}

/** Axis, subject, the wedge that the camera sees, and the one that its lens shades. */
function Seen({ room, view, width }: PartProps & { width: number }) {
  const theme = useTheme();
  const { x, y } = view;
  const [front, half] = [Math.max(room.front_mm, 0), room.frame_width_mm / 2];
  const shade = room.front_width_mm / 2;
  return (
    <>
      <polygon
        points={`${x(0)},${y(0)} ${x(front)},${y(-shade)} ${x(front)},${y(shade)}`}
        fill={theme.line}
        fillOpacity={0.45}
      />
      <polygon
        points={`${x(0)},${y(-half)} ${x(front)},${y(-room.seen_at_front_mm / 2)} ${x(front)},${y(room.seen_at_front_mm / 2)} ${x(0)},${y(half)}`}
        fill="none"
        stroke={theme.sharpEdge}
      />
      <line x1={0} x2={width} y1={y(0)} y2={y(0)} stroke={theme.soft} strokeDasharray="14 4 2 4" />
      <rect
        x={x(room.nearest_mm)}
        width={Math.max(x(room.farthest_mm) - x(room.nearest_mm), 2)}
        y={y(-half)}
        height={2 * half * view.pxPerMm}
        fill={theme.subjectFill}
        stroke={theme.subject}
      />
    </>
  );
}

function Rig({ reach, room, view }: PartProps & { reach: Reach }) {
  const theme = useTheme();
  const toSensor = reach.subject_to_sensor_mm;
  return reach.pieces.map((piece) => {
    const end = toSensor - piece.from_sensor_mm - piece.length_mm;
    return (
      <rect
        key={`${piece.kind}-${piece.index ?? "body"}`}
        x={view.x(end + piece.length_mm)}
        width={Math.max(piece.length_mm * view.pxPerMm, 1)}
        y={view.y(-piece.width_mm / 2)}
        height={piece.width_mm * view.pxPerMm}
        fill={end + piece.length_mm > room.front_mm + 1 || piece.index !== null ? theme.raised : theme.strong}
        stroke={theme.strong}
      />
    );
  });
}

/** A light as a solid bar, a diffuser as a broken one, each where it faces the subject. */
function Thing({ thing, view, width }: { thing: Room["things"][number]; view: RoomView; width: number }) {
  const theme = useTheme();
  const [one, other] = [thing.one, thing.other].map(([x, y]) => [
    view.x(x as number),
    view.y(y as number),
  ]) as [[number, number], [number, number]];
  const colour = thing.in_the_way ? theme.trouble : thing.kind === "light" ? theme.sharpEdge : theme.subject;
  const middleY = (one[1] + other[1]) / 2;
  const looks = `${thing.looks_deg.toFixed(0)}° wide from the subject`;
  const after = Math.max(one[0], other[0]) + 10;
  const fits = after + Math.max(thing.name.length, looks.length) * CHARACTER_PX < width;
  const place = fits ? after : Math.min(one[0], other[0]) - 10;
  return (
    <g>
      <line
        x1={one[0]}
        y1={one[1]}
        x2={other[0]}
        y2={other[1]}
        stroke={colour}
        strokeWidth={thing.kind === "light" ? 6 : 4}
        strokeDasharray={thing.kind === "light" ? undefined : "8 4"}
      />
      <text
        y={middleY - 2}
        textAnchor={fits ? "start" : "end"}
        fill={thing.in_the_way ? theme.trouble : theme.ink}
        stroke={theme.ground}
        strokeWidth={4}
        paintOrder="stroke"
      >
        <tspan x={place}>{thing.name}</tspan>
        <tspan x={place} dy={15}>
          {looks}
        </tspan>
      </text>
    </g>
  );
}

function Free({ room, view, words }: PartProps & { words: string }) {
  const theme = useTheme();
  if (room.free_mm <= 0) return null;
  const [from, to] = [view.x(room.front_mm), view.x(room.nearest_mm)];
  const y = view.y(room.front_width_mm / 2) + 12;
  return (
    <g stroke={theme.ink}>
      <path d={`M${from} ${y - 5}v10M${from} ${y}H${to}M${to} ${y - 5}v10`} fill="none" />
      <text
        x={(from + to) / 2}
        y={y + 16}
        textAnchor="middle"
        fill={theme.ink}
        fontWeight={650}
        stroke={theme.ground}
        strokeWidth={4}
        paintOrder="stroke"
      >
        {words} for light
      </text>
    </g>
  );
}
