import type { PlatePoint } from '../plan/camera';
import type { PickedColor } from '../scene/fields';

/** How a pass joins what the passes before it cover: added to it, cut out of it, or kept where both are. */
export const JOINS = ['add', 'cut', 'meet'] as const;
export type Join = (typeof JOINS)[number];

interface Joined {
  id: string;
  join: Join;
}

/** The sky, as the survey finds it. */
export interface SkyPass extends Joined {
  kind: 'sky';
}

/** What is inside a closed line through points. */
export interface OutlinePass extends Joined {
  kind: 'outline';
  points: PlatePoint[];
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

/** Full at one place, nothing from the other on: along a line, or around `from` as an ellipse. */
export interface RampPass extends Joined {
  kind: 'ramp';
  shape: 'straight' | 'round';
  from: PlatePoint;
  to: PlatePoint;
  /** Share of the way over which it falls off, from the outer end. */
  soft: number;
}

export type Pass = SkyPass | OutlinePass | TonePass | ColorPass | AreaPass | RampPass;
/** Passes that are looked for on a small copy of the plate. */
export type FoundPass = AreaPass | ColorPass;
export type PassKind = Pass['kind'];

/** Coverage of two passes joined, each 0 to 1. */
export function joinCoverage(before: number, next: number, join: Join): number {
  if (join === 'add') return before + next - before * next;
  return join === 'cut' ? before * (1 - next) : before * next;
}
