import type { Region } from '@/core/plane/region';

/** The smallest box, in pixels of the region, around all boxes. */
export function unionBox(boxes: Region[], region: Region) {
  const full = boxes.filter(({ width, height }) => width > 0 && height > 0);
  if (full.length === 0) return { left: 0, top: 0, width: 0, height: 0 };
  const left = Math.min(...full.map((box) => box.left));
  const top = Math.min(...full.map((box) => box.top));
  const right = Math.max(...full.map((box) => box.left + box.width));
  const bottom = Math.max(...full.map((box) => box.top + box.height));
  return { left: left - region.left, top: top - region.top, width: right - left, height: bottom - top };
}
