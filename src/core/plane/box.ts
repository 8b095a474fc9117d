/** A rectangle of a picture's pixels; `right` and `bottom` are the first beyond it. */
export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The smallest box around all pixels that count, by their index, row-major; undefined where none does. */
export function boxAround(width: number, height: number, counts: (i: number) => boolean): Box | undefined {
  const box = { left: width, top: height, right: 0, bottom: 0 };
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if (!counts(i)) continue;
      if (x < box.left) box.left = x;
      if (x >= box.right) box.right = x + 1;
      if (y < box.top) box.top = y;
      box.bottom = y + 1;
    }
  }
  return box.bottom > 0 ? box : undefined;
}

/** A box with a margin, cut at the picture's edges. */
export function grown({ left, top, right, bottom }: Box, margin: number, width: number, height: number): Box {
  return {
    left: Math.max(0, left - margin),
    top: Math.max(0, top - margin),
    right: Math.min(width, right + margin),
    bottom: Math.min(height, bottom + margin),
  };
}

/** What a box holds of a plane with rows of `width`. */
export function cutBox(data: Float32Array, width: number, { left, top, right, bottom }: Box): Float32Array {
  const own = right - left;
  const out = new Float32Array(own * (bottom - top));
  for (let y = top; y < bottom; y++) {
    out.set(data.subarray(y * width + left, y * width + right), (y - top) * own);
  }
  return out;
}

/** Puts what `cutBox` would cut of the target back in its place. */
export function pasteBox(out: Float32Array, width: number, box: Box, part: Float32Array): void {
  const own = box.right - box.left;
  for (let y = box.top; y < box.bottom; y++) {
    out.set(part.subarray((y - box.top) * own, (y - box.top + 1) * own), y * width + box.left);
  }
}
