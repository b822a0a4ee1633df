/** Pieces of a rig as marks: one look in the drawing and in the thumbnails. */
import { useTheme } from "styled-components";
import type { Piece } from "../../api/types";

const BODY_BEHIND_MM = 28;

interface PieceMarksProps {
  pieces: readonly Piece[];
  /** From the sensor, mm, to px. */
  x: (place: number) => number;
  axis: number;
  pxPerMm: number;
}

/** The body and every piece in front of it: lengths true, widths as far as they are known. */
export function PieceMarks({ pieces, x, axis, pxPerMm }: PieceMarksProps) {
  const theme = useTheme();
  return (
    <>
      {pieces.map((piece) => {
        const isBody = piece.kind === "body";
        const from = isBody ? -BODY_BEHIND_MM : piece.from_sensor_mm;
        const long = piece.length_mm + (isBody ? BODY_BEHIND_MM : 0);
        const glass = ["lens", "zoom", "objective"].includes(piece.kind);
        const front = piece.kind === "close_up";
        return (
          <g key={piece.index ?? "body"}>
            <rect
              x={x(from)}
              y={axis - (piece.width_mm / 2) * pxPerMm}
              width={Math.max(long * pxPerMm, 1)}
              height={piece.width_mm * pxPerMm}
              fill={isBody ? theme.strong : glass ? theme.subjectFill : front ? theme.subject : theme.surface}
              stroke={isBody ? "none" : glass || front ? theme.subject : theme.strong}
              strokeWidth={1.2}
              strokeDasharray={piece.reversed ? "5 3" : undefined}
            />
            {glass ? (
              <Facing piece={piece} x={x} axis={axis} pxPerMm={pxPerMm} />
            ) : piece.kind === "bellows" ? (
              <Folds piece={piece} x={x} axis={axis} pxPerMm={pxPerMm} />
            ) : null}
          </g>
        );
      })}
    </>
  );
}

type OneMark = Omit<PieceMarksProps, "pieces"> & { piece: Piece };

/** A line inside the front end of a lens: which way it looks. */
function Facing({ piece, x, axis, pxPerMm }: OneMark) {
  const theme = useTheme();
  const inset = Math.min(piece.length_mm * 0.12, 6);
  const at = piece.from_sensor_mm + (piece.reversed ? inset : piece.length_mm - inset);
  const half = piece.width_mm * 0.36 * pxPerMm;
  const bulge = (piece.reversed ? -1 : 1) * Math.min(4, piece.length_mm * 0.08 * pxPerMm);
  return (
    <path
      d={`M${x(at)} ${axis - half}q${bulge} ${half} 0 ${2 * half}`}
      fill="none"
      stroke={theme.subject}
      strokeWidth={1.2}
    />
  );
}

function Folds({ piece, x, axis, pxPerMm }: OneMark) {
  const theme = useTheme();
  const folds = Math.max(Math.round(piece.length_mm / 8), 2);
  const half = (piece.width_mm / 2) * pxPerMm;
  return (
    <path
      d={Array.from({ length: folds - 1 }, (_, index) => {
        const at = x(piece.from_sensor_mm + ((index + 1) * piece.length_mm) / folds);
        return `M${at} ${axis - half}V${axis + half}`;
      }).join("")}
      stroke={theme.strong}
      strokeWidth={0.8}
    />
  );
}
