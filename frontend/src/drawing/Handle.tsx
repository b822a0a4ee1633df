import { Slider, SliderThumb, SliderTrack } from "react-aria-components";
import { memo, type KeyboardEvent } from "react";
import styled from "styled-components";
import { useSteady } from "../controls/useSteady";
import { niceStep, type Viewport } from "./viewport";

const Layer = styled(Slider<number>)`
  position: absolute;
  top: 0;
  bottom: 0;
  pointer-events: none;
`;

const Track = styled(SliderTrack)`
  width: 100%;
  height: 100%;
`;

const Grip = styled(SliderThumb)`
  pointer-events: auto;
  width: 40px;
  height: 40px;
  display: grid;
  place-items: center;
  cursor: ew-resize;
  &::after {
    content: "";
    width: 14px;
    height: 22px;
    border: 1.5px solid ${({ theme }) => theme.strong};
    background: ${({ theme }) => theme.surface};
  }
  &[data-look="focus"]::after {
    width: 16px;
    height: 16px;
    transform: rotate(45deg);
    background: ${({ theme }) => theme.sharp};
    border-color: ${({ theme }) => theme.sharpEdge};
  }
  &[data-look="stop"]::after {
    width: 18px;
    height: 18px;
    border-radius: 50%;
    border: 2px solid ${({ theme }) => theme.sharpEdge};
  }
  &[data-dragging]::after,
  &[data-hovered]::after {
    background: ${({ theme }) => theme.sharp};
  }
`;

interface HandleProps {
  label: string;
  look: "limit" | "focus" | "stop";
  view: Viewport;
  /** Place along the axis, mm in the drawing. */
  place: number;
  /** Height of the grip in the drawing, px from its top. */
  top: number;
  onMove: (place: number) => void;
  onDone: (place: number) => void;
  /** Takes over the arrow keys, where a press is more than a distance. */
  onArrow?: (direction: 1 | -1, coarse: boolean) => void;
}

/** Something on the drawing that can be dragged along the axis, by pointer, touch or keyboard. */
export function Handle({ onMove, onDone, onArrow, ...shown }: HandleProps) {
  const arrow = useSteady(onArrow ?? nothing);
  return (
    <Held
      {...shown}
      onMove={useSteady(onMove)}
      onDone={useSteady(onDone)}
      {...(onArrow ? { onArrow: arrow } : {})}
    />
  );
}

const Held = memo(function Held({ label, look, view, place, top, onMove, onDone, onArrow }: HandleProps) {
  const step = niceStep(0.4 / view.pxPerMm);
  const least = Math.ceil(view.from / step) * step;
  const most = Math.floor(view.to / step) * step;
  if (place < least || place > most) return null;
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (direction === undefined) return;
    if (!onArrow && !event.shiftKey) return;
    event.preventDefault();
    event.stopPropagation();
    if (onArrow) onArrow(direction as 1 | -1, event.shiftKey);
    else onDone(place + direction * step * 10);
  };
  return (
    <div style={{ display: "contents" }} onKeyDownCapture={onKeyDown}>
      <Layer
        aria-label={label}
        minValue={least}
        maxValue={most}
        step={step}
        value={place}
        onChange={(value) => onMove(tidy(value))}
        onChangeEnd={(value) => onDone(tidy(value))}
        style={{ left: view.x(least), width: view.x(most) - view.x(least) }}
      >
        <Track>
          <Grip data-look={look} style={{ top }} aria-label={label} />
        </Track>
      </Layer>
    </div>
  );
});

function nothing() {}

function tidy(value: number): number {
  return Number(value.toPrecision(10));
}
