/** Which part of a large picture is in sight, and which of its tiles show it. Pixel geometry only. */

/** Px of a tile; the server cuts so. */
export const SIDE = 512;

export interface Size {
  width: number;
  height: number;
}

/** What is looked at: the place in the middle, px of the picture, and px of the screen to one of the picture. */
export interface View {
  x: number;
  y: number;
  scale: number;
}

export interface Tile {
  column: number;
  row: number;
  /** In px of the whole picture. */
  left: number;
  top: number;
  width: number;
  height: number;
}

/** How a picture lies on another whose places are shared: a place of that one times `times`, and a shift, is its own. */
export interface Placed {
  times: number;
  x: number;
  y: number;
}

/** The same place of a picture that lies on another, as large on the screen. */
export function viewOn({ x, y, scale }: View, placed: Placed | null): View {
  if (placed === null) return { x, y, scale };
  return { x: x * placed.times + placed.x, y: y * placed.times + placed.y, scale: scale / placed.times };
}

/** How many sizes a picture is cut at: full, half, a quarter ... the last fits into one tile. */
export function levelsOf({ width, height }: Size): number {
  let count = 1;
  for (let side = Math.max(width, height); side > SIDE; side = Math.ceil(side / 2)) count++;
  return count;
}

/** The size of which one pixel is no larger than one of the screen. */
export function levelFor(scale: number, ratio: number, size: Size): number {
  const level = Math.floor(Math.log2(1 / (scale * ratio)) + 1e-9);
  return Math.min(Math.max(level, 0), levelsOf(size) - 1);
}

/** The tiles of a size that are in sight. */
export function tilesIn(view: View, box: Size, size: Size, level: number): Tile[] {
  const side = SIDE * 2 ** level;
  const [left, right] = span(view.x, box.width / view.scale, size.width);
  const [top, bottom] = span(view.y, box.height / view.scale, size.height);
  const found: Tile[] = [];
  for (let row = Math.floor(top / side); row * side < bottom; row++) {
    for (let column = Math.floor(left / side); column * side < right; column++) {
      found.push({
        column,
        row,
        left: column * side,
        top: row * side,
        width: Math.min(side, size.width - column * side),
        height: Math.min(side, size.height - row * side),
      });
    }
  }
  return found;
}

function span(middle: number, extent: number, whole: number): [number, number] {
  return [Math.max(middle - extent / 2, 0), Math.min(middle + extent / 2, whole)];
}

/** The whole picture in a box. */
export function wholeIn(box: Size, size: Size): View {
  const scale = Math.min(box.width / size.width, box.height / size.height) || 1;
  return { x: size.width / 2, y: size.height / 2, scale };
}

/** A view that shows picture all over the box where there is enough of it, and its middle where there is not. */
export function held(view: View, box: Size, size: Size): View {
  const scale = Math.min(Math.max(view.scale, wholeIn(box, size).scale), MOST);
  const at = (place: number, extent: number, whole: number) =>
    extent >= whole ? whole / 2 : Math.min(Math.max(place, extent / 2), whole - extent / 2);
  return {
    x: at(view.x, box.width / scale, size.width),
    y: at(view.y, box.height / scale, size.height),
    scale,
  };
}

const MOST = 8;

/** Nearer or farther, with the place under the pointer (px of the box) where it is. */
export function zoomedAt(view: View, box: Size, pointer: { x: number; y: number }, times: number): View {
  const dx = (pointer.x - box.width / 2) / view.scale;
  const dy = (pointer.y - box.height / 2) / view.scale;
  return {
    x: view.x + dx - dx / times,
    y: view.y + dy - dy / times,
    scale: view.scale * times,
  };
}
