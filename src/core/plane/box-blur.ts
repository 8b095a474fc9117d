/**
 * A running mean over a square of (2 * radius + 1) pixels, cut at the picture's edges (so a constant stays constant).
 * Prepared once for a size; `out` may be `source`.
 */
export function createBoxBlur(width: number, height: number, radius: number) {
  const scratch = new Float32Array(width * height);
  const column = new Float64Array(width);
  const counts = (size: number) =>
    Float64Array.from(
      { length: size },
      (_, i) => 1 / (Math.min(size - 1, i + radius) - Math.max(0, i - radius) + 1),
    );
  const [across, down] = [counts(width), counts(height)];
  // From here on a window begins to lose pixels, and until there it still gains some.
  const losing = Math.min(width, radius + 1);
  const gaining = Math.max(0, width - radius);

  function alongRows(source: Float32Array): void {
    for (let row = 0; row < width * height; row += width) {
      let sum = 0;
      for (let x = 0; x < Math.min(radius, width); x++) sum += source[row + x];
      const middle = Math.max(losing, gaining);
      let x = 0;
      for (; x < Math.min(losing, gaining); x++) {
        sum += source[row + x + radius];
        scratch[row + x] = sum * across[x];
      }
      for (; x < losing; x++) scratch[row + x] = sum * across[x];
      for (; x < gaining; x++) {
        sum += source[row + x + radius] - source[row + x - radius - 1];
        scratch[row + x] = sum * across[x];
      }
      for (; x < width; x++) {
        if (x >= middle) sum -= source[row + x - radius - 1];
        scratch[row + x] = sum * across[x];
      }
    }
  }

  function alongColumns(out: Float32Array): void {
    column.fill(0);
    for (let y = 0; y < Math.min(radius, height); y++) {
      for (let x = 0; x < width; x++) column[x] += scratch[y * width + x];
    }
    for (let y = 0; y < height; y++) {
      const [gain, loss] = [(y + radius) * width, (y - radius - 1) * width];
      const share = down[y];
      if (y + radius < height && y > radius) {
        for (let x = 0; x < width; x++) column[x] += scratch[gain + x] - scratch[loss + x];
      } else {
        if (y + radius < height) for (let x = 0; x < width; x++) column[x] += scratch[gain + x];
        if (y > radius) for (let x = 0; x < width; x++) column[x] -= scratch[loss + x];
      }
      const row = y * width;
      for (let x = 0; x < width; x++) out[row + x] = column[x] * share;
    }
  }

  return (out: Float32Array, source: Float32Array): void => {
    alongRows(source);
    alongColumns(out);
  };
}
