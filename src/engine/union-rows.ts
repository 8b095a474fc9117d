import type { Region } from '@/core/plane/region';
import type { Rows } from './graph/task';

/** The rows of a region that any of some boxes touches. */
export function unionRows(boxes: Region[], region: Region): Rows {
  const full = boxes.filter(({ width, height }) => width > 0 && height > 0);
  if (full.length === 0) return { from: 0, to: 0 };
  return {
    from: Math.min(...full.map(({ top }) => top)) - region.top,
    to: Math.max(...full.map(({ top, height }) => top + height)) - region.top,
  };
}
