/** A rectangle of a picture's pixels; `right` and `bottom` are the first beyond it. */
export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/**
 * The smallest box around all pixels that count, by their index, row-major; undefined where none does. It is looked for from each side,
 * since most of what is boxed lies within: not every pixel is asked.
 */
export function boxAround(width: number, height: number, counts: (i: number) => boolean): Box | undefined {
  let [top, bottom, left, right] = [0, height, 0, width];
  const rowHas = (y: number) => {
    for (let i = y * width; i < (y + 1) * width; i++) if (counts(i)) return true;
    return false;
  };
  const columnHas = (x: number) => {
    for (let i = top * width + x; i < bottom * width; i += width) if (counts(i)) return true;
    return false;
  };
  while (top < height && !rowHas(top)) top++;
  if (top === height) return undefined;
  while (!rowHas(bottom - 1)) bottom--;
  while (!columnHas(left)) left++;
  while (!columnHas(right - 1)) right--;
  return { left, top, right, bottom };
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
