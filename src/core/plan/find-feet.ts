/** Things narrower than this part of the width do not lend their foot to what is seen behind and around them. */
const NARROW = 0.035;

/**
 * For every pixel that stands, the row of the ground on which its column stands, as a fraction of the height: the ground
 * just below the pixel's own run of standing pixels. A run that the plate's lower edge cuts stands there. Posts and
 * rails, which would draw stripes up what is far behind them, are passed over. Ground and sky are their own foot.
 */
export function findFeet(ground: Uint8Array, sky: Uint8Array, width: number, height: number): Float32Array {
  const feet = new Float32Array(width * height);
  for (let x = 0; x < width; x++) {
    let foot = height;
    for (let y = height - 1; y >= 0; y--) {
      const i = y * width + x;
      if (ground[i]) foot = y;
      feet[i] = (ground[i] || sky[i] ? y + 0.5 : foot) / height;
    }
  }
  const reach = Math.max(1, Math.round((NARROW / 2) * width));
  const row = new Float32Array(width);
  const opened = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    const first = y * width;
    const stands = (x: number) => !ground[first + x] && !sky[first + x];
    row.set(feet.subarray(first, first + width));
    extremeAlong(opened, row, stands, reach, Math.min);
    extremeAlong(row, opened, stands, reach, Math.max);
    for (let x = 0; x < width; x++) if (stands(x)) feet[first + x] = row[x];
  }
  return feet;
}

/** The least or greatest of the standing neighbours along a row; running it both ways is a morphological opening. */
function extremeAlong(
  out: Float32Array,
  row: Float32Array,
  stands: (x: number) => boolean,
  reach: number,
  pick: (a: number, b: number) => number,
): void {
  for (let x = 0; x < row.length; x++) {
    let value = row[x];
    for (let k = Math.max(0, x - reach); k <= Math.min(row.length - 1, x + reach); k++) {
      if (stands(k)) value = pick(value, row[k]);
    }
    out[x] = value;
  }
}
