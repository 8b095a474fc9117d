import type { Region } from '@/core/plane/region';
import type { Rows } from './graph/task';

/** The rows of a region that any of some boxes touches, and those of `more`. */
export function unionRows(boxes: Region[], region: Region, more: Rows = { from: 0, to: 0 }): Rows {
  const touched = boxes
    .filter(({ width, height }) => width > 0 && height > 0)
    .map(({ top, height }) => ({ from: top - region.top, to: top + height - region.top }));
  const all = [...touched, more].filter(({ from, to }) => from < to);
  if (all.length === 0) return { from: 0, to: 0 };
  return { from: Math.min(...all.map(({ from }) => from)), to: Math.max(...all.map(({ to }) => to)) };
}
