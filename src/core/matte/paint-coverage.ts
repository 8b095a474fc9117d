import type { Box } from '../plane/box';
import type { Region } from '../plane/region';
import { smoothStep } from '../plane/smooth-step';
import type { PaintStroke } from './pass';
import { hypot } from '../plane/hypot';

/** Way between two dabs, fraction of the radius. */
const SPACING = 0.2;

/** Radius of the smallest dab that is drawn as it is, pixels; smaller ones are drawn as large and weaker. */
const SMALLEST = 0.7;

/** Size of a dab without any pressure, where pressure sets the size. */
const LEAST_SIZE = 0.15;

/** A soft disc of a stroke. */
export interface Dab {
  /** Fractions of the plate. */
  u: number;
  v: number;
  /** Fraction of the plate's width. */
  radius: number;
  flow: number;
}

/**
 * Follows a stroke that is still growing: each call gives the dabs that its path has gained, evenly along it, the same for a
 * picture of any size.
 *
 * @param aspect width over height of the plate
 */
export function followStroke(
  { size, flow, pressure }: Omit<PaintStroke, 'path'>,
  aspect: number,
): (path: readonly number[]) => Dab[] {
  const sized = pressure === 'size' || pressure === 'both';
  const flowing = pressure === 'flow' || pressure === 'both';
  let [known, ahead] = [0, 0];
  return (path) => {
    const dabs: Dab[] = [];
    const dab = (u: number, v: number, pressed: number) => {
      const radius = sized ? size * (LEAST_SIZE + (1 - LEAST_SIZE) * pressed) : size;
      dabs.push({ u, v, radius, flow: flowing ? flow * pressed : flow });
      return SPACING * radius;
    };
    if (known === 0 && path.length >= 3) {
      ahead = dab(path[0], path[1], path[2]);
      known = 3;
    }
    for (; known > 0 && known + 2 < path.length; known += 3) {
      const [u0, v0, p0] = [path[known - 3], path[known - 2], path[known - 1]];
      const [u1, v1, p1] = [path[known], path[known + 1], path[known + 2]];
      const length = hypot(u1 - u0, (v1 - v0) / aspect);
      let at = ahead;
      while (at <= length && length > 0) {
        const t = at / length;
        at += Math.max(1e-5, dab(u0 + t * (u1 - u0), v0 + t * (v1 - v0), p0 + t * (p1 - p0)));
      }
      ahead = at - length;
    }
    return dabs;
  };
}

/** The dabs of a whole stroke. */
export const dabsOf = (stroke: PaintStroke, aspect: number): Dab[] =>
  followStroke(stroke, aspect)(stroke.path);

/** The pixels of a region that dabs may touch; undefined where there are none. */
export function dabBox(dabs: readonly Dab[], region: Region): Box | undefined {
  const { fullWidth, fullHeight, left, top, width, height } = region;
  const box: Box = { left: width, top: height, right: 0, bottom: 0 };
  for (const { u, v, radius } of dabs) {
    const reach = Math.max(SMALLEST, radius * fullWidth);
    const [cx, cy] = [u * fullWidth - left - 0.5, v * fullHeight - top - 0.5];
    box.left = Math.min(box.left, Math.max(0, Math.ceil(cx - reach)));
    box.right = Math.max(box.right, Math.min(width, Math.floor(cx + reach) + 1));
    box.top = Math.min(box.top, Math.max(0, Math.ceil(cy - reach)));
    box.bottom = Math.max(box.bottom, Math.min(height, Math.floor(cy + reach) + 1));
  }
  return box.left < box.right && box.top < box.bottom ? box : undefined;
}

/** A dab on the pixels of a region: its middle and radius, the share of the radius that it covers alike, and what it takes. */
export interface LaidDab {
  x: number;
  y: number;
  reach: number;
  inner: number;
  share: number;
}

/** A dab where it lies on a region, pixels. */
export function placeDab({ u, v, radius, flow }: Dab, soft: number, region: Region): LaidDab {
  const exact = radius * region.fullWidth;
  const reach = Math.max(SMALLEST, exact);
  return {
    x: u * region.fullWidth - region.left - 0.5,
    y: v * region.fullHeight - region.top - 0.5,
    reach,
    // A hard edge is as wide as a pixel.
    inner: Math.max(0, Math.min(1 - soft, 1 - 1 / reach)),
    share: flow * Math.min(1, (exact / reach) ** 2),
  };
}

/** Lays dabs on a plane of a region: each takes its flow of what is not covered yet or, erasing, of what is. */
export function layDabs(
  out: Float32Array,
  dabs: readonly Dab[],
  soft: number,
  region: Region,
  erase = false,
): void {
  const { width, height } = region;
  const full = erase ? 0 : 1;
  for (const dab of dabs) {
    const { x: cx, y: cy, reach, inner, share } = placeDab(dab, soft, region);
    const [y0, y1] = [Math.max(0, Math.ceil(cy - reach)), Math.min(height - 1, Math.floor(cy + reach))];
    for (let y = y0; y <= y1; y++) {
      const down = (y - cy) ** 2;
      const across = Math.sqrt(Math.max(0, reach * reach - down));
      const [x0, x1] = [Math.max(0, Math.ceil(cx - across)), Math.min(width - 1, Math.floor(cx + across))];
      for (let x = x0, i = y * width + x0; x <= x1; x++, i++) {
        const away = Math.sqrt((x - cx) ** 2 + down) / reach;
        const part = away <= inner ? 1 : 1 - smoothStep(inner, 1, away);
        out[i] += share * part * (full - out[i]);
      }
    }
  }
}

/** Whether any place of a stroke, or of the way between two of them, lies between two heights. */
function passesBy({ path }: PaintStroke, from: number, to: number): boolean {
  let [top, bottom] = [Infinity, -Infinity];
  for (let i = 1; i < path.length; i += 3) {
    top = Math.min(top, path[i]);
    bottom = Math.max(bottom, path[i]);
  }
  return bottom >= from && top <= to;
}

/** Lays dabs as `layDabs` does. */
export type LayDabs = typeof layDabs;

/** Coverage of a region by strokes alone, as `layStrokes` lays them. `out` is filled anew. */
export function paintCoverage(
  out: Float32Array,
  scratch: Float32Array,
  strokes: readonly PaintStroke[],
  region: Region,
  lay?: LayDabs,
): void {
  out.fill(0);
  layStrokes(out, scratch, strokes, region, lay);
}

/**
 * Lays strokes on a coverage of a region, one over the other, 0 to 1. `scratch` is as long as `out`.
 *
 * Dabs are soft discs laid along a path; their spacing is a share of their radius, so that a
 * stroke is the same at any size.
 *
 * @param lay lays dabs on `out` itself: `layDabs`, or a kernel that does the same
 */
export function layStrokes(
  out: Float32Array,
  scratch: Float32Array,
  strokes: readonly PaintStroke[],
  region: Region,
  lay: LayDabs = layDabs,
): void {
  const aspect = region.fullWidth / region.fullHeight;
  const [first, last] = [region.top / region.fullHeight, (region.top + region.height) / region.fullHeight];
  for (const stroke of strokes) {
    const reach = (stroke.size + 2 / region.fullWidth) * aspect;
    if (!passesBy(stroke, first - reach, last + reach)) continue;
    const near = dabsOf(stroke, aspect).filter(({ v }) => v + reach >= first && v - reach <= last);
    // Dabs of a stroke of full strength come to the same on what is there already.
    if (stroke.strength === 1) {
      lay(out, near, stroke.soft, region, stroke.erase);
      continue;
    }
    const box = dabBox(near, region);
    if (!box) continue;
    for (let y = box.top; y < box.bottom; y++)
      scratch.fill(0, y * region.width + box.left, y * region.width + box.right);
    layDabs(scratch, near, stroke.soft, region);
    for (let y = box.top; y < box.bottom; y++) {
      for (let i = y * region.width + box.left; i < y * region.width + box.right; i++) {
        const share = stroke.strength * scratch[i];
        out[i] += stroke.erase ? -share * out[i] : share * (1 - out[i]);
      }
    }
  }
}
