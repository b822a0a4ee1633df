import { useEffect, useRef, type ReactNode } from "react";
import styled from "styled-components";
import { Panes } from "./panes";
import {
  held,
  levelFor,
  levelsOf,
  tilesIn,
  viewOn,
  wholeIn,
  zoomedAt,
  type Placed,
  type Size,
  type View,
} from "./tiles";
import { useSize } from "./useSize";
import { usePanning } from "./usePanning";

const Pane = styled.div`
  position: relative;
  overflow: hidden;
  min-width: 0;
  min-height: 0;
  border: 1px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.surface};
  touch-action: none;
  cursor: grab;
  user-select: none;
  &:active {
    cursor: grabbing;
  }
`;

const Sheet = styled.div`
  position: absolute;
  left: 0;
  top: 0;
  transform-origin: 0 0;
  img {
    position: absolute;
    display: block;
  }
  &[data-close] img {
    image-rendering: pixelated;
  }
`;

export interface Tiled {
  id: string;
  label: string;
  size: Size;
  /** How it lies on the picture whose places are shared; null: it is of those places. */
  placed: Placed | null;
  /** Address of a tile. */
  tile: (level: number, column: number, row: number) => string;
}

interface Props {
  /** null: it is still being fetched. */
  pictures: readonly (Tiled | null)[];
  /** Of the picture whose places are shared. */
  size: Size;
  /** null: the whole picture. */
  view: View | null;
  onView: (view: View) => void;
  /** Drawn over each picture of the shared places: places are px of the picture times scale, from the corner that is given. */
  over?: (place: { scale: number; left: number; top: number; width: number; height: number }) => ReactNode;
}

/** Large pictures of the same place at the same scale, moved together; of each only the tiles in sight are fetched. */
export function TiledPanes({ pictures, size, view, onView, over }: Props) {
  return (
    <Panes>
      {pictures.map((picture, index) =>
        picture ? (
          <OnePane key={index} picture={picture} size={size} view={view} onView={onView} over={over} />
        ) : (
          <Pane key={index} aria-busy />
        ),
      )}
    </Panes>
  );
}

function OnePane({ picture, size, view, onView, over }: Omit<Props, "pictures"> & { picture: Tiled }) {
  const [measure, box] = useSize<HTMLDivElement>();
  const pane = useRef<HTMLDivElement | null>(null);
  const shown = held(view ?? wholeIn(box, size), box, size);
  const look = (next: View) => onView(held(next, box, size));
  const panning = usePanning(shown, box, look);
  // A wheel turns the page unless it is told not to, which React's own listener cannot.
  useEffect(() => {
    const here = pane.current;
    if (!here) return;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const frame = here.getBoundingClientRect();
      const pointer = { x: event.clientX - frame.left, y: event.clientY - frame.top };
      look(zoomedAt(shown, box, pointer, 2 ** (-event.deltaY / 300)));
    };
    here.addEventListener("wheel", turn, { passive: false });
    return () => here.removeEventListener("wheel", turn);
  });
  const own = viewOn(shown, picture.placed);
  const left = box.width / 2 - own.x * own.scale;
  const top = box.height / 2 - own.y * own.scale;
  return (
    <Pane
      ref={(element) => {
        pane.current = element;
        measure(element);
      }}
      tabIndex={0}
      role="application"
      aria-label={`${picture.label}; arrow keys move it, plus and minus come nearer and go farther`}
      {...panning}
    >
      {box.width ? (
        <>
          <Sheet
            style={{ transform: `translate(${left}px, ${top}px) scale(${own.scale})` }}
            {...(own.scale * window.devicePixelRatio > 1 ? { "data-close": "" } : {})}
          >
            <Tiles picture={picture} view={own} box={box} />
          </Sheet>
          {picture.placed ? null : over?.({ scale: shown.scale, left, top, ...box })}
        </>
      ) : null}
    </Pane>
  );
}

/** The smallest size all over, and over it what the scale asks for. */
function Tiles({ picture, view, box }: { picture: Tiled; view: View; box: Size }) {
  const { size } = picture;
  const last = levelsOf(size) - 1;
  const level = levelFor(view.scale, window.devicePixelRatio, size);
  const layers = level === last ? [last] : [last, level];
  return layers.map((each) =>
    tilesIn(each === last ? wholeIn(box, size) : view, box, size, each).map((tile) => (
      <img
        key={`${picture.id} ${each} ${tile.column} ${tile.row}`}
        src={picture.tile(each, tile.column, tile.row)}
        alt=""
        draggable={false}
        style={{ left: tile.left, top: tile.top, width: tile.width, height: tile.height }}
      />
    )),
  );
}
