import type { Region } from '@/core/plane/region';
import type { Rows } from './graph/task';

/** The rows from the first to the last that any of some hold; none where none holds any. */
export function unionRows(all: readonly Rows[]): Rows {
  const some = all.filter(({ from, to }) => from < to);
  if (some.length === 0) return { from: 0, to: 0 };
  return { from: Math.min(...some.map(({ from }) => from)), to: Math.max(...some.map(({ to }) => to)) };
}

/** The rows of a region that a box touches. */
export const rowsTouched = ({ top, width, height }: Region, region: Region): Rows =>
  width > 0 ? { from: top - region.top, to: top + height - region.top } : { from: 0, to: 0 };
