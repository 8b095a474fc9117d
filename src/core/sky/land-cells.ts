import type { Box } from '../plane/box';
import { clamp } from '../plane/clamp';
import type { Plane } from '../plane/plane';
import type { Region } from '../plane/region';
import { NO_SKY, SURELY } from './land-share';
import type { SkyTones } from './sky-tones';

/** Columns of a cell of the small copy; it is one row high. */
const CELL = 8;

/** Rows of a region that are looked at together. */
const BAND = 16;

type Size = Pick<Plane, 'width' | 'height'>;

const cellsOf = ({ width }: Size) => Math.ceil(width / CELL);

/**
 * Tells which cells of the small copy are land alone, with no sky near: they need not be looked at closely. Prepared once for all of a
 * picture.
 *
 * @returns row by row of the small copy, 1 for every CELL of its columns that is, 0 for others
 */
export function landCells({
  width,
  height,
  withinLand,
  nearSky,
}: Pick<SkyTones, 'withinLand' | 'nearSky'> & Size): Uint8Array {
  const cells = cellsOf({ width, height });
  return Uint8Array.from({ length: cells * height }, (_, k) => {
    const row = Math.floor(k / cells) * width;
    const first = row + (k % cells) * CELL;
    // Between its last column and the next one lie places of this cell.
    const last = Math.min(first + CELL, row + width - 1);
    for (let i = first; i <= last; i++) if (withinLand[i] <= SURELY || nearSky[i] >= NO_SKY) return 0;
    return 1;
  });
}

/** The boxes of a region, in its own pixels, that do not lie in cells of land alone. */
export function openBoxes(cells: Uint8Array, small: Size, region: Region): Box[] {
  const boxes: Box[] = [];
  for (let top = 0; top < region.height; top += BAND) {
    const bottom = Math.min(region.height, top + BAND);
    for (const { left, right } of openColumns(cells, small, region, top, bottom))
      boxes.push({ left, right, top, bottom });
  }
  return boxes;
}

/** Columns of some rows of a region that do not lie in cells of land alone. */
function openColumns(
  cells: Uint8Array,
  small: Size,
  { left, top, width, fullWidth, fullHeight }: Region,
  from: number,
  to: number,
): Pick<Box, 'left' | 'right'>[] {
  const across = cellsOf(small);
  const rowAt = (row: number) => Math.floor(((top + row + 0.5) / fullHeight) * small.height - 0.5);
  const upper = clamp(rowAt(from), 0, small.height - 1);
  const lower = clamp(rowAt(to - 1) + 1, 0, small.height - 1);
  const isOpen = (cell: number) => {
    for (let row = upper; row <= lower; row++) if (cells[row * across + cell] === 0) return true;
    return false;
  };
  const cellAt = (x: number) =>
    clamp(Math.floor((((left + x + 0.5) / fullWidth) * small.width - 0.5) / CELL), 0, across - 1);
  const startOf = (cell: number) => Math.ceil(((cell * CELL + 0.5) / small.width) * fullWidth - left - 0.5);
  const [first, last] = [cellAt(0), cellAt(width - 1)];
  const columns: Pick<Box, 'left' | 'right'>[] = [];
  for (let cell = first; cell <= last; cell++) {
    if (!isOpen(cell)) continue;
    const begin = cell === first ? 0 : clamp(startOf(cell), 0, width);
    while (cell < last && isOpen(cell + 1)) cell++;
    columns.push({ left: begin, right: cell === last ? width : clamp(startOf(cell + 1), 0, width) });
  }
  return columns;
}
