/** Share of a regular octagon's radius that its diagonal sides take (Minkowski sum of a square and a diamond). */
const DIAGONAL = 1 - Math.SQRT1_2;

/**
 * Running maximum over `radius` pixels to both sides along lines (van Herk 1992), whose cost does not depend on the radius:
 * every window of 2 * radius + 1 pixels is the end of one block and the start of the next. Beyond a line's ends lie zeros.
 */
function createRunningMaximum(data: Float32Array, longest: number, mostRadius: number) {
  const [rising, falling] = [0, 1].map(() => new Float32Array(longest + 4 * mostRadius + 1));
  return (first: number, stride: number, count: number, radius: number): void => {
    const block = 2 * radius + 1;
    const padded = count + 2 * radius;
    rising.fill(0, 0, padded + block);
    for (let i = 0; i < count; i++) rising[i + radius] = data[first + i * stride];
    falling.set(rising.subarray(0, padded + block));
    for (let start = 0; start < padded; start += block) {
      for (let i = start + 1; i < start + block; i++)
        if (rising[i - 1] > rising[i]) rising[i] = rising[i - 1];
      for (let i = start + block - 2; i >= start; i--)
        if (falling[i + 1] > falling[i]) falling[i] = falling[i + 1];
    }
    for (let i = 0; i < count; i++) {
      const [end, next] = [falling[i], rising[i + 2 * radius]];
      data[first + i * stride] = end > next ? end : next;
    }
  };
}

/** Dilation by an octagon of a whole radius. The ways along diagonals may lead outside, so it works on a wider plane. */
function dilateWhole(data: Float32Array, width: number, height: number, radius: number): void {
  const slant = Math.max(0, Math.min(Math.round(DIAGONAL * radius), (radius - 1) >> 1));
  const straight = radius - 2 * slant;
  const [wide, high] = [width + 2 * slant, height + 2 * slant];
  const padded = new Float32Array(wide * high);
  for (let y = 0; y < height; y++)
    padded.set(data.subarray(y * width, (y + 1) * width), (y + slant) * wide + slant);
  const run = createRunningMaximum(padded, Math.max(wide, high), Math.max(straight, slant));
  for (let y = 0; y < high; y++) run(y * wide, 1, wide, straight);
  for (let x = 0; x < wide; x++) run(x, wide, high, straight);
  const slanting = (stride: number, start: (x: number) => number) => {
    for (let k = 1 - high; k < wide; k++) {
      const [x, y] = [Math.max(0, k), Math.max(0, -k)];
      run(y * wide + start(x), stride, Math.min(wide - x, high - y), slant);
    }
  };
  if (slant > 0) {
    slanting(wide + 1, (x) => x);
    slanting(wide - 1, (x) => wide - 1 - x);
  }
  for (let y = 0; y < height; y++) {
    const at = (y + slant) * wide + slant;
    data.set(padded.subarray(at, at + width), y * width);
  }
}

/**
 * Grey dilation, in place, by a regular octagon around each pixel, which comes near a disc: running maxima along rows,
 * columns and both diagonals. Between two whole radii the results are blended.
 */
export function dilate(data: Float32Array, width: number, height: number, radius: number): void {
  const lower = Math.floor(radius);
  const share = radius - lower;
  const larger = share > 0 ? data.slice() : undefined;
  if (larger) dilateWhole(larger, width, height, lower + 1);
  if (lower > 0) dilateWhole(data, width, height, lower);
  if (larger) for (let i = 0; i < data.length; i++) data[i] += share * (larger[i] - data[i]);
}
