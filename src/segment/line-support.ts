import { hypot } from '@/core/plane/hypot';

/** Gradients of a grey picture of 8-bit codes, as Sobel's operator gives them, one float a pixel. */
export interface Gradients {
  width: number;
  height: number;
  x: Float32Array;
  y: Float32Array;
}

/** A straight edge, pixels. */
export interface Segment {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  length: number;
}

/** Weakest gradient of an edge, codes of Sobel's operator; gradients of one edge point the same way within so many radians. */
const EDGE = { weakest: 45, turn: Math.PI / 8 } as const;

/** Shortest edge, fraction of the picture's width, and how many times as long as it is broad. */
const LONG = { least: 0.014, times: 4 } as const;

/**
 * Straight edges by regions of pixels whose gradients point the same way (Burns, Hanson and Riseman 1986; grown from the strongest on, as by
 * Grompone von Gioi et al. 2010). The line of a region is the axis of its pixels, weighed by their gradients.
 */
export function lineSupport(gradients: Gradients): Segment[] {
  const { width, height, x, y } = gradients;
  const strength = x.map((value, i) => hypot(value, y[i]));
  const angle = x.map((value, i) => Math.atan2(y[i], value));
  const taken = new Uint8Array(width * height);
  const strong: number[] = [];
  for (let row = 1; row < height - 1; row++) {
    for (let i = row * width + 1; i < (row + 1) * width - 1; i++) {
      if (strength[i] > EDGE.weakest) strong.push(i);
      else taken[i] = 1;
    }
  }
  for (let i = 0; i < width; i++) taken[i] = taken[(height - 1) * width + i] = 1;
  for (let row = 0; row < height; row++) taken[row * width] = taken[(row + 1) * width - 1] = 1;
  strong.sort((a, b) => strength[b] - strength[a]);
  const region = new Int32Array(strong.length);
  const found: Segment[] = [];
  for (const seed of strong) {
    if (taken[seed]) continue;
    const count = grow(region, seed, { width, x, y, strength, angle, taken });
    const segment = fit(region.subarray(0, count), width, strength);
    if (segment && segment.length >= LONG.least * width) found.push(segment);
  }
  return found;
}

interface Growing {
  width: number;
  x: Float32Array;
  y: Float32Array;
  strength: Float32Array;
  angle: Float32Array;
  taken: Uint8Array;
}

/** Grows the region of a seed over pixels whose gradient points as the region's mean does. Returns how many there are. */
function grow(region: Int32Array, seed: number, { width, x, y, strength, angle, taken }: Growing): number {
  let count = 1;
  let [sumX, sumY] = [x[seed] / strength[seed], y[seed] / strength[seed]];
  let mean = angle[seed];
  region[0] = seed;
  taken[seed] = 1;
  for (let k = 0; k < count; k++) {
    for (let row = -width; row <= width; row += width) {
      for (let to = region[k] + row - 1; to <= region[k] + row + 1; to++) {
        if (taken[to]) continue;
        const apart = Math.abs(angle[to] - mean);
        if (Math.min(apart, 2 * Math.PI - apart) > EDGE.turn) continue;
        taken[to] = 1;
        region[count++] = to;
        sumX += x[to] / strength[to];
        sumY += y[to] / strength[to];
        mean = Math.atan2(sumY, sumX);
      }
    }
  }
  return count;
}

/** The line of a region; undefined where it is no line. */
function fit(region: Int32Array, width: number, strength: Float32Array): Segment | undefined {
  let [all, mx, my] = [0, 0, 0];
  for (const i of region) {
    all += strength[i];
    mx += strength[i] * (i % width);
    my += strength[i] * Math.floor(i / width);
  }
  [mx, my] = [mx / all, my / all];
  let [xx, xy, yy] = [0, 0, 0];
  for (const i of region) {
    const [dx, dy] = [(i % width) - mx, Math.floor(i / width) - my];
    xx += strength[i] * dx * dx;
    xy += strength[i] * dx * dy;
    yy += strength[i] * dy * dy;
  }
  const axis = 0.5 * Math.atan2(2 * xy, xx - yy);
  const [cos, sin] = [Math.cos(axis), Math.sin(axis)];
  let [from, to, near, far] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const i of region) {
    const [dx, dy] = [(i % width) - mx, Math.floor(i / width) - my];
    const [along, across] = [cos * dx + sin * dy, cos * dy - sin * dx];
    [from, to] = [Math.min(from, along), Math.max(to, along)];
    [near, far] = [Math.min(near, across), Math.max(far, across)];
  }
  if (to - from < LONG.times * Math.max(1, far - near)) return undefined;
  return {
    ...{ ax: mx + from * cos, ay: my + from * sin, bx: mx + to * cos, by: my + to * sin },
    length: to - from,
  };
}
