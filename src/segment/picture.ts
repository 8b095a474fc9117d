/** A plate as the segmentation sees it: interleaved 8-bit sRGB codes. */
export interface Picture {
  width: number;
  height: number;
  rgb: Uint8Array;
}

/** A rectangle of whole pixels. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The pixels around places of a picture, with a margin, inside it; undefined where they lie outside. */
export function boxAround(
  path: readonly number[],
  { width, height }: Pick<Picture, 'width' | 'height'>,
  margin: (longest: number) => number,
): Box | undefined {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i + 1 < path.length; i += 2) {
    left = Math.min(left, path[i] * width);
    right = Math.max(right, path[i] * width);
    top = Math.min(top, path[i + 1] * height);
    bottom = Math.max(bottom, path[i + 1] * height);
  }
  const room = margin(Math.max(right - left, bottom - top));
  const x = Math.max(0, Math.floor(left - room));
  const y = Math.max(0, Math.floor(top - room));
  const box = {
    x,
    y,
    width: Math.min(width, Math.ceil(right + room)) - x,
    height: Math.min(height, Math.ceil(bottom + room)) - y,
  };
  return box.width >= 3 && box.height >= 3 ? box : undefined;
}
