import { clamp } from '../plane/clamp';
import type { Plane } from '../plane/plane';
import type { Region } from '../plane/region';
import { NO_SKY, SURELY } from './land-share';
import type { SkyTones } from './sky-tones';

/** What cells of the small copy are: land alone with no sky near, sky alone, or both. */
export const CELLS = { mixed: 0, land: 1, sky: 2 } as const;

/** Columns of a cell; it is one row high. */
const CELL = 8;

type Size = Pick<Plane, 'width' | 'height'>;

const cellsOf = ({ width }: Size) => Math.ceil(width / CELL);

/**
 * Tells which cells of the small copy are land or sky alone: they need not be looked at closely. Prepared once for all of a picture.
 *
 * @returns row by row of the small copy, a byte for every CELL of its columns
 */
export function plainCells({
  width,
  height,
  withinSky,
  withinLand,
  nearSky,
}: Pick<SkyTones, 'withinSky' | 'withinLand' | 'nearSky'> & Size): Uint8Array {
  const cells = cellsOf({ width, height });
  return Uint8Array.from({ length: cells * height }, (_, k) => {
    const row = Math.floor(k / cells) * width;
    const first = row + (k % cells) * CELL;
    // Between its last column and the next one lie places of this cell.
    const last = Math.min(first + CELL, row + width - 1);
    const all = (is: (i: number) => boolean) => {
      for (let i = first; i <= last; i++) if (!is(i)) return false;
      return true;
    };
    if (all((i) => withinLand[i] > SURELY && nearSky[i] < NO_SKY)) return CELLS.land;
    return all((i) => withinSky[i] > SURELY) ? CELLS.sky : CELLS.mixed;
  });
}

/** Columns of a row of a region, from one on, that lie in cells of one kind. */
export function spanAt(
  plain: Uint8Array,
  small: Size,
  { left, top, width, fullWidth, fullHeight }: Region,
  row: number,
  from: number,
): { kind: number; to: number } {
  const v = ((top + row + 0.5) / fullHeight) * small.height - 0.5;
  const upper = clamp(Math.floor(v), 0, small.height - 1);
  const cells = cellsOf(small);
  const [above, below] = [upper * cells, Math.min(small.height - 1, upper + 1) * cells];
  const kindOf = (cell: number) =>
    plain[above + cell] === plain[below + cell] ? plain[above + cell] : CELLS.mixed;
  const u = ((left + from + 0.5) / fullWidth) * small.width - 0.5;
  let cell = clamp(Math.floor(u / CELL), 0, cells - 1);
  const kind = kindOf(cell);
  while (cell + 1 < cells && kindOf(cell + 1) === kind) cell++;
  if (cell + 1 === cells) return { kind, to: width };
  const end = (((cell + 1) * CELL + 0.5) / small.width) * fullWidth - left - 0.5;
  return { kind, to: clamp(Math.ceil(end), from + 1, width) };
}
