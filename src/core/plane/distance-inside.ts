/**
 * Distance of every covered pixel to the nearest one that is not covered, pixels; 0 outside. Exact Euclidean (Felzenszwalb
 * and Huttenlocher 2012), along columns, then along rows. The picture's edge is no edge.
 */
export function distanceInside(covered: Float32Array, width: number, height: number): Float32Array {
  const far = (width + height) ** 2;
  const squares = Float64Array.from(covered, (value) => (value > 0.5 ? far : 0));
  const longest = Math.max(width, height);
  const line = new Float64Array(longest);
  const parabola = createLowerEnvelope(longest);
  for (let x = 0; x < width; x++) {
    for (let y = 0; y < height; y++) line[y] = squares[y * width + x];
    parabola(line, height);
    for (let y = 0; y < height; y++) squares[y * width + x] = line[y];
  }
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) line[x] = squares[y * width + x];
    parabola(line, width);
    for (let x = 0; x < width; x++) squares[y * width + x] = line[x];
  }
  return Float32Array.from(squares, Math.sqrt);
}

/** Replaces a line by the lower envelope of parabolas that stand on its values. */
function createLowerEnvelope(longest: number) {
  const at = new Int32Array(longest);
  const from = new Float64Array(longest + 1);
  const heights = new Float64Array(longest);
  return (line: Float64Array, count: number): void => {
    let k = 0;
    at[0] = 0;
    from[0] = -Infinity;
    from[1] = Infinity;
    for (let q = 1; q < count; q++) {
      let cross = 0;
      for (;;) {
        const p = at[k];
        cross = (line[q] + q * q - line[p] - p * p) / (2 * (q - p));
        if (cross > from[k]) break;
        k--;
      }
      at[++k] = q;
      from[k] = cross;
      from[k + 1] = Infinity;
    }
    heights.set(line.subarray(0, count));
    for (let q = 0, j = 0; q < count; q++) {
      while (from[j + 1] < q) j++;
      line[q] = (q - at[j]) ** 2 + heights[at[j]];
    }
  };
}
