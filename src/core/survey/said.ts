import { geodesicReach } from '../plane/geodesic-reach';
import { edgeHeight } from './edge-height';
import type { PlateFeatures } from './plate-features';

/** What a person can say that a place of the plate is. */
export const SAID = ['ground', 'upright', 'far', 'sky', 'water'] as const;
export type Said = (typeof SAID)[number];

/** A stroke with which a person says what a place is. */
export interface SaidStroke {
  as: Said;
  /** Its way: u, v; u, v ... */
  path: readonly number[];
  /** Its radius, fraction of the plate's width. */
  size: number;
}

/** What is said of the pixels of a small plate: 0 for nothing, else one more than the place in SAID. */
export type SaidPlane = Uint8Array;

/** What a plane of what is said holds where something is said to be so. */
export const codeOf = (as: Said): number => 1 + SAID.indexOf(as);

export const hasWater = (strokes: readonly SaidStroke[]): boolean => strokes.some(({ as }) => as === 'water');

/**
 * How far what is said goes on beyond its stroke: over this height of edges in all, weighed Oklab, where a step over what has no edge
 * counts as so much, and at most so many radii of the brush.
 */
const GOES_ON = { edges: 0.045, step: 0.0015, radii: 1.5 } as const;

/** Lays a stroke: all pixels whose middles lie under it, and at least those that its way touches. */
function layStroke(
  { path, size }: SaidStroke,
  width: number,
  height: number,
  lay: (i: number, radius: number) => void,
): void {
  const radius = Math.max(0.75, size * width);
  for (let k = 0; k + 1 < path.length; k += 2) {
    const [bx, by] = [path[k] * width - 0.5, path[k + 1] * height - 0.5];
    const [ax, ay] = k > 0 ? [path[k - 2] * width - 0.5, path[k - 1] * height - 0.5] : [bx, by];
    const [ex, ey] = [bx - ax, by - ay];
    const [left, right] = [Math.ceil(Math.min(ax, bx) - radius), Math.floor(Math.max(ax, bx) + radius)];
    const [top, bottom] = [Math.ceil(Math.min(ay, by) - radius), Math.floor(Math.max(ay, by) + radius)];
    for (let y = Math.max(0, top); y <= Math.min(height - 1, bottom); y++) {
      for (let x = Math.max(0, left); x <= Math.min(width - 1, right); x++) {
        const along = ((x - ax) * ex + (y - ay) * ey) / Math.max(1e-9, ex * ex + ey * ey);
        const t = Math.min(1, Math.max(0, along));
        const square = (x - ax - t * ex) ** 2 + (y - ay - t * ey) ** 2;
        if (square <= radius * radius) lay(y * width + x, radius);
      }
    }
  }
}

/**
 * What strokes say of a small plate, and of what is alike around them: what is said goes on up to the plate's edges, farther from a
 * wide brush. A later stroke is believed rather than one before it. Undefined without strokes.
 */
export function whatIsSaid(features: PlateFeatures, strokes: readonly SaidStroke[]): SaidPlane | undefined {
  if (strokes.length === 0) return undefined;
  const { width, height } = features;
  const labels = new Float32Array(width * height);
  const cost = new Float32Array(width * height).fill(Infinity);
  const laid = new Uint8Array(width * height);
  for (const stroke of strokes) {
    layStroke(stroke, width, height, (i, radius) => {
      labels[i] = codeOf(stroke.as);
      cost[i] = Math.max(0, GOES_ON.edges - GOES_ON.step * GOES_ON.radii * radius);
      laid[i] = 1;
    });
  }
  const edge = edgeHeight(features);
  geodesicReach(cost, laid, width, height, (from, to) => GOES_ON.step + edge(from, to), labels);
  return Uint8Array.from(labels, (label, i) => (cost[i] <= GOES_ON.edges ? label : 0));
}
