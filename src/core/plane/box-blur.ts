/**
 * A running mean over a square of (2 * radius + 1) pixels, cut at the picture's edges (so a constant stays constant).
 * Prepared once for a size; `out` may be `source`.
 */
export function createBoxBlur(width: number, height: number, radius: number) {
  const scratch = new Float32Array(width * height);
  const column = new Float64Array(width);

  function alongRows(source: Float32Array): void {
    for (let y = 0; y < height; y++) {
      const row = y * width;
      let sum = 0;
      for (let x = 0; x < Math.min(radius, width); x++) sum += source[row + x];
      for (let x = 0; x < width; x++) {
        if (x + radius < width) sum += source[row + x + radius];
        if (x - radius - 1 >= 0) sum -= source[row + x - radius - 1];
        const count = Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1;
        scratch[row + x] = sum / count;
      }
    }
  }

  function alongColumns(out: Float32Array): void {
    column.fill(0);
    const add = (y: number, sign: number) => {
      for (let x = 0; x < width; x++) column[x] += sign * scratch[y * width + x];
    };
    for (let y = 0; y < Math.min(radius, height); y++) add(y, 1);
    for (let y = 0; y < height; y++) {
      if (y + radius < height) add(y + radius, 1);
      if (y - radius - 1 >= 0) add(y - radius - 1, -1);
      const count = Math.min(height - 1, y + radius) - Math.max(0, y - radius) + 1;
      for (let x = 0; x < width; x++) out[y * width + x] = column[x] / count;
    }
  }

  return (out: Float32Array, source: Float32Array): void => {
    alongRows(source);
    alongColumns(out);
  };
}
