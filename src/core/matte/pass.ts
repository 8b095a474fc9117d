import type { PlatePoint } from '../geometry/camera';
import type { OutlinePoint } from '../geometry/flatten-outline';
import type { PickedColor } from '../fields/fields';

/** How a pass joins what the passes before it cover: added to it, subtracted from it, or kept where both are. */
export const JOINS = ['add', 'subtract', 'intersect'] as const;
export type Join = (typeof JOINS)[number];

interface Joined {
  id: string;
  join: Join;
}

/** The sky, as the survey finds it. */
export interface SkyPass extends Joined {
  kind: 'sky';
}

/** Where the sun's shadows lie on the ground, as they are found. */
export interface ShadowPass extends Joined {
  kind: 'shadow';
}

/** What is inside a closed line through points. */
export interface OutlinePass extends Joined {
  kind: 'outline';
  points: OutlinePoint[];
}

/** What a stroke of the edge brush does: take what is inside a rough loop, take what it runs over, or leave that out. */
export const EDGE_ACTS = ['loop', 'take', 'leave'] as const;

/** A stroke of the edge brush. */
export interface EdgeStroke {
  act: (typeof EDGE_ACTS)[number];
  /** Places of the plate: u, v, one after the other. */
  path: number[];
  /** Radius, fraction of the plate's width. */
  size: number;
}

/** What a brush found that stops at edges by itself: its strokes, and the picture of what they found. */
export interface EdgePass extends Joined {
  kind: 'edge';
  strokes: EdgeStroke[];
  /** SHA-256 of the grey PNG; nothing is found yet without it. */
  asset?: string;
}

/** What the pressure of a pen sets. */
export const PRESSURE_ACTS = ['none', 'flow', 'size', 'both'] as const;

/** A stroke painted by hand. */
export interface PaintStroke {
  /** u, v, pressure (0 to 1), one after the other. */
  path: number[];
  /** Radius, fraction of the plate's width. */
  size: number;
  /** Share of the radius over which it falls off. */
  soft: number;
  /** What one dab adds, 0 to 1. */
  flow: number;
  /** What the whole stroke adds at most, 0 to 1. */
  strength: number;
  erase: boolean;
  pressure: (typeof PRESSURE_ACTS)[number];
}

/** Coverage painted by hand. */
export interface PaintPass extends Joined {
  kind: 'paint';
  strokes: PaintStroke[];
}

/** What another matte covers. */
export interface MattePass extends Joined {
  kind: 'matte';
  matte: string;
}

/** Tones of the plate from `low` to `high`, with shoulders as wide as `soft`; display codes, 0 to 1. */
export interface TonePass extends Joined {
  kind: 'tone';
  low: number;
  high: number;
  soft: number;
}

/** Colours of the plate like one: hue and strength of colour count, lightness does not. Reach and shoulder in Oklab. */
export interface ColorPass extends Joined {
  kind: 'colour';
  color: PickedColor;
  reach: number;
  soft: number;
}

/** What looks like a place and hangs together with it. Tolerance in Oklab. */
export interface AreaPass extends Joined {
  kind: 'area';
  at: PlatePoint;
  tolerance: number;
  /** Without it, like places anywhere count. */
  connected: boolean;
}

/**
 * Full at one place, nothing from the other on: along a line, or around `from` as an ellipse. The way to `to` is then one
 * of its half axes, which tilts it.
 */
export interface RampPass extends Joined {
  kind: 'ramp';
  shape: 'straight' | 'round';
  from: PlatePoint;
  to: PlatePoint;
  /** The ellipse's other half axis over the one to `to`. */
  breadth: number;
  /** Share of the way over which it falls off, from the outer end. */
  soft: number;
}

export type Pass =
  | SkyPass
  | ShadowPass
  | OutlinePass
  | EdgePass
  | AreaPass
  | TonePass
  | ColorPass
  | RampPass
  | PaintPass
  | MattePass;
/** Passes that are looked for on a small copy of the plate. */
export type FoundPass = AreaPass | ColorPass | ShadowPass;
export type PassKind = Pass['kind'];

/** What a join keeps of what was before, what it takes of the next, and what of both at once. */
const SHARES: Record<Join, readonly [before: number, next: number, both: number]> = {
  add: [1, 1, -1],
  subtract: [1, 0, -1],
  intersect: [0, 0, 1],
};

/** Joins the next of two passes to what was before, each 0 to 1. */
export function joinCoverage(before: Float32Array, next: Float32Array, join: Join): void {
  const [keeps, takes, shares] = SHARES[join];
  for (let i = 0; i < before.length; i++)
    before[i] = keeps * before[i] + takes * next[i] + shares * before[i] * next[i];
}
