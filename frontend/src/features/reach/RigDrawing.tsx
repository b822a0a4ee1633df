import { useId } from "react";
import styled, { useTheme } from "styled-components";
import { usePreferences } from "../../app/preferences";
import { makeViewport } from "../../drawing/viewport";
import { Rule } from "../../drawing/Rule";
import { useSize } from "../../drawing/useSize";
import { length, size, times } from "../../units/format";
import { useBench } from "../bench/ShotContext";

const Box = styled.div`
  position: relative;
  min-height: 300px;
  overflow: hidden;
`;

const BODY_HEIGHT_MM = 90;
const BARREL_HEIGHT_MM = 70;

const Nothing = styled.p`
  margin: 60px auto;
  max-width: 420px;
  color: ${({ theme }) => theme.soft};
`;

/** The whole rig from sensor to subject, to one scale, with its rule from the sensor mark. Barrel widths are not known
 * to the program and are drawn alike; lengths along the axis and the frame are true. */
export function RigDrawing() {
  const { plan, drawn: shot } = useBench();
  const { units } = usePreferences();
  const theme = useTheme();
  const titleId = useId();
  const [box, measured] = useSize<HTMLDivElement>();
  const reach = plan?.reach;
  const { width, height } = measured;
  if (!reach) {
    return (
      <Box ref={box}>
        <Nothing>
          {plan ? `Nothing can be drawn yet: ${plan.verdict.headline} ${plan.verdict.detail}` : ""}
        </Nothing>
      </Box>
    );
  }
  const end = reach.subject_to_sensor_mm;
  const before = 45;
  const span = before + end + Math.max(reach.frame_width_mm * 0.1, end * 0.16);
  const drawingHeight = Math.max(height - 60, 100);
  const scale = Math.min(
    (width || 1) / span,
    drawingHeight / Math.max(reach.frame_height_mm * 1.1, BODY_HEIGHT_MM + 60),
  );
  const view = makeViewport(width || 1, drawingHeight, -before + (width || 1) / scale / 2, scale);
  const axis = view.y(0);
  const front = reach.lens_front_to_sensor_mm;
  const half = (reach.frame_height_mm / 2) * scale;
  const shade = theme.strong;
  return (
    <Box ref={box}>
      {width > 50 ? (
        <>
          <svg width={width} height={drawingHeight} role="img" aria-labelledby={titleId}>
            <title id={titleId}>
              {`The rig to scale: ${reach.pieces.map((piece) => `${piece.name} ${length(piece.length_mm, units)}`).join(", ")}, then ${length(reach.working_distance_mm, units)} to the plane of focus.`}
            </title>
            <line x1={0} x2={width} y1={axis} y2={axis} stroke={theme.soft} strokeDasharray="14 4 2 4" />
            <rect
              x={view.x(-28)}
              y={axis - (BODY_HEIGHT_MM / 2) * scale}
              width={(28 + (shot.body.register_mm ?? 0)) * scale}
              height={BODY_HEIGHT_MM * scale}
              fill={shade}
            />
            {reach.pieces.slice(1).map((piece, index) => (
              <g key={index}>
                <rect
                  x={view.x(piece.from_sensor_mm)}
                  y={axis - ((piece.kind === "tube" ? 60 : BARREL_HEIGHT_MM) / 2) * scale}
                  width={Math.max(piece.length_mm * scale, 1)}
                  height={(piece.kind === "tube" ? 60 : BARREL_HEIGHT_MM) * scale}
                  fill={piece.kind === "tube" ? theme.surface : theme.subjectFill}
                  stroke={piece.kind === "tube" ? theme.strong : theme.subject}
                  strokeWidth={1.3}
                />
                <text
                  x={view.x(piece.from_sensor_mm + piece.length_mm / 2)}
                  y={axis + (BODY_HEIGHT_MM / 2) * scale + 16 + (index % 2) * 14}
                  textAnchor="middle"
                  fontSize={12}
                  fill={theme.soft}
                >
                  {piece.kind === "tube" ? `tube ${length(piece.length_mm, units)}` : piece.name}
                </text>
              </g>
            ))}
            <line
              x1={view.x(0)}
              x2={view.x(0)}
              y1={axis - (BODY_HEIGHT_MM / 2) * scale - 24}
              y2={axis + (shot.body.sensor_height_mm / 2) * scale}
              stroke={theme.soft}
              strokeDasharray="3 3"
            />
            <line
              x1={view.x(0)}
              x2={view.x(0)}
              y1={axis - (shot.body.sensor_height_mm / 2) * scale}
              y2={axis + (shot.body.sensor_height_mm / 2) * scale}
              stroke={theme.sharp}
              strokeWidth={4}
            />
            <text
              x={view.x(0)}
              y={axis - (BODY_HEIGHT_MM / 2) * scale - 30}
              textAnchor="middle"
              fontSize={12}
              fill={theme.soft}
            >
              sensor mark
            </text>
            {[1, -1].map((side) => (
              <line
                key={side}
                x1={view.x(end - reach.entrance_pupil_mm)}
                y1={axis}
                x2={view.x(end)}
                y2={axis + side * half}
                stroke={theme.sharpEdge}
                strokeWidth={1}
              />
            ))}
            <rect
              x={view.x(end) - 2}
              y={axis - half}
              width={4}
              height={half * 2}
              fill={theme.sharp}
              stroke={theme.sharpEdge}
            />
            <text
              x={view.x(end)}
              y={axis - half - 24}
              textAnchor="middle"
              fontWeight={650}
              fontSize={19}
              fill={theme.ink}
            >
              {times(reach.magnification)}
            </text>
            <text x={view.x(end)} y={axis - half - 8} textAnchor="middle" fontSize={12} fill={theme.ink}>
              {size(reach.frame_width_mm, reach.frame_height_mm, units)}
            </text>
            {reach.working_distance_mm > 0 ? (
              <g stroke={theme.ink}>
                <line x1={view.x(front)} x2={view.x(end)} y1={drawingHeight - 22} y2={drawingHeight - 22} />
                {[front, end].map((place) => (
                  <line
                    key={place}
                    x1={view.x(place)}
                    x2={view.x(place)}
                    y1={drawingHeight - 28}
                    y2={drawingHeight - 16}
                  />
                ))}
                <text
                  x={(view.x(front) + view.x(end)) / 2}
                  y={drawingHeight - 28}
                  textAnchor="middle"
                  fontWeight={650}
                  fontSize={13}
                  fill={theme.ink}
                  stroke="none"
                >
                  {length(reach.working_distance_mm, units)} to the plane of focus
                </text>
              </g>
            ) : (
              <text
                x={view.x(end)}
                y={drawingHeight - 20}
                textAnchor="middle"
                fontSize={13}
                fill={theme.trouble}
              >
                the focus falls inside the lens
              </text>
            )}
          </svg>
          <span style={{ color: theme.soft, fontSize: 12 }}>{units} from the sensor mark</span>
          <Rule
            view={view}
            units={units}
            from={end - (plan.focus_behind_nearest_mm ?? 0)}
            to={end - (plan.focus_behind_nearest_mm ?? 0) + shot.subject.depth_mm}
          />
        </>
      ) : null}
    </Box>
  );
}
