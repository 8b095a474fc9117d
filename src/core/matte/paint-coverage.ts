import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import type { PaintStroke } from './pass';

/** Way between two dabs, fraction of the radius. */
const SPACING = 0.2;

/** Radius of the smallest dab that is drawn as it is, pixels; smaller ones are drawn as large and weaker. */
const SMALLEST = 0.7;

/** Size of a dab without any pressure, where pressure sets the size. */
const LEAST_SIZE = 0.15;

interface Dab {
  /** Fractions of the plate. */
  u: number;
  v: number;
  /** Fraction of the plate's width. */
  radius: number;
  flow: number;
}

/** The dabs of a stroke, evenly along its path: the same for a picture of any size. `aspect`: width over height. */
export function dabsOf({ path, size, flow, pressure }: PaintStroke, aspect: number): Dab[] {
  const dabs: Dab[] = [];
  const dab = (u: number, v: number, pressed: number) => {
    const radius =
      pressure === 'size' || pressure === 'both' ? size * (LEAST_SIZE + (1 - LEAST_SIZE) * pressed) : size;
    dabs.push({ u, v, radius, flow: pressure === 'flow' || pressure === 'both' ? flow * pressed : flow });
    return SPACING * radius;
  };
  if (path.length < 3) return dabs;
  let ahead = dab(path[0], path[1], path[2]);
  for (let i = 3; i + 2 < path.length; i += 3) {
    const [u0, v0, p0] = [path[i - 3], path[i - 2], path[i - 1]];
    const [u1, v1, p1] = [path[i], path[i + 1], path[i + 2]];
    const length = Math.hypot(u1 - u0, (v1 - v0) / aspect);
    let at = ahead;
    while (at <= length && length > 0) {
      const t = at / length;
      at += Math.max(1e-5, dab(u0 + t * (u1 - u0), v0 + t * (v1 - v0), p0 + t * (p1 - p0)));
    }
    ahead = at - length;
  }
  return dabs;
}

/** Lays dabs on a plane of a region: each takes its flow of what is not covered yet. */
export function layDabs(
  out: Float32Array,
  dabs: readonly Dab[],
  soft: number,
  { fullWidth, fullHeight, left, top, width, height }: Region,
): void {
  for (const { u, v, radius, flow } of dabs) {
    const exact = radius * fullWidth;
    const reach = Math.max(SMALLEST, exact);
    const share = flow * Math.min(1, (exact / reach) ** 2);
    // A hard edge is as wide as a pixel.
    const inner = Math.max(0, Math.min(reach * (1 - soft), reach - 1));
    const [cx, cy] = [u * fullWidth - left - 0.5, v * fullHeight - top - 0.5];
    const [x0, x1] = [Math.max(0, Math.ceil(cx - reach)), Math.min(width - 1, Math.floor(cx + reach))];
    const [y0, y1] = [Math.max(0, Math.ceil(cy - reach)), Math.min(height - 1, Math.floor(cy + reach))];
    for (let y = y0; y <= y1; y++) {
      for (let x = x0; x <= x1; x++) {
        const square = (x - cx) ** 2 + (y - cy) ** 2;
        if (square >= reach * reach) continue;
        const part = square <= inner * inner ? 1 : 1 - smoothStep(inner, reach, Math.sqrt(square));
        const i = y * width + x;
        out[i] += share * part * (1 - out[i]);
      }
    }
  }
}

/**
 * Coverage of a region by strokes, one over the other, 0 to 1. `out` is filled anew; `scratch` is as long.
 *
 * Dabs are soft discs laid along a path, as in every paint program; their spacing is a share of their radius, so that a
 * stroke is the same at any size.
 */
export function paintCoverage(
  out: Float32Array,
  scratch: Float32Array,
  strokes: readonly PaintStroke[],
  region: Region,
): void {
  out.fill(0);
  const aspect = region.fullWidth / region.fullHeight;
  const [first, last] = [region.top / region.fullHeight, (region.top + region.height) / region.fullHeight];
  for (const stroke of strokes) {
    const reach = (stroke.size + 2 / region.fullWidth) * aspect;
    const near = dabsOf(stroke, aspect).filter(({ v }) => v + reach >= first && v - reach <= last);
    if (near.length === 0) continue;
    scratch.fill(0);
    layDabs(scratch, near, stroke.soft, region);
    for (let i = 0; i < out.length; i++) {
      const share = stroke.strength * scratch[i];
      out[i] += stroke.erase ? -share * out[i] : share * (1 - out[i]);
    }
  }
}
