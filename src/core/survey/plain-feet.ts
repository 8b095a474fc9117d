import type { PlateFeatures } from './plate-features';
import { distanceToTone, toneAt, type Tone } from './ground-tones';
import { edgeHeight } from './edge-height';
import { underFoot, type ToldWall } from './told-walls';

/** A place right under a wall's foot where the ground plainly begins, and what the ground looks like there. */
export interface PlainFoot {
  /** The pixel under the foot. */
  at: number;
  tone: Tone;
}

/**
 * Rows by which the plate is looked at over and under a foot, that it may be drawn a little off; the edge between both from which the
 * ground plainly begins, and how far its tone may be from what most of the foot has, weighed Oklab: what differs stands before the wall.
 */
const PLAIN = { rows: 3, edge: 0.04, alike: 0.03 } as const;

const middle = (values: number[]) => values.sort((p, q) => p - q)[values.length >> 1];

/**
 * Where the ground begins plainly under the feet of told walls: an edge lies on the foot, and what is under it looks as it does under
 * most of that wall. A car or a bin before the wall has no edge there, or another colour.
 */
export function plainFeet(
  features: PlateFeatures,
  walls: readonly ToldWall[],
  horizon: { left: number; right: number },
  under: Uint8Array,
): PlainFoot[] {
  const { width, height } = features;
  const edge = edgeHeight({ ...features, lightness: features.softLightness });
  const reach = PLAIN.rows * width;
  return walls.flatMap((wall) => {
    const feet = underFoot(wall, horizon, width, height)
      .filter((at) => under[at] && at >= reach && at < width * height - reach)
      .map((at): PlainFoot => ({ at, tone: toneAt(features, at + reach) }));
    if (feet.length === 0) return [];
    const usual = [0, 1, 2].map((c) => middle(feet.map(({ tone }) => tone[c]))) as [number, number, number];
    return feet.filter(
      ({ at, tone }) =>
        edge(at - reach, at + reach) > PLAIN.edge && distanceToTone(tone, usual) < PLAIN.alike,
    );
  });
}
