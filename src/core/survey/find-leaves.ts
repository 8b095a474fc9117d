import { createBoxBlur } from '../plane/box-blur';
import { smoothStep } from '../plane/smooth-step';
import type { PlateFeatures } from './plate-features';

/** From how green to how green, of its lightness, a place counts as leaves: Oklab a toward green, where b is no bluer than this share. */
const GREEN = { from: 0.02, to: 0.06, bluest: 0 } as const;

/** How busy leaves are: standard deviation of lightness, as shares of it. */
const BUSY = { from: 0.04, to: 0.1 } as const;

/** Over how much of a neighbourhood they are looked at, fraction of the width, and the share of it that leaves fill. */
const AROUND = 0.008;
const FILLED = { from: 0.3, to: 0.6 } as const;

/** Lightness that counts as black. */
const BLACK = 0.02;

/**
 * Coverage by leaves, 0 to 1, of a small plate: green and busy all around. Smooth green things are none, nor is what is green in one place.
 */
export function findLeaves({ width, height, softLightness, a, b, texture }: PlateFeatures): Float32Array {
  const leaves = softLightness.map((light, i) => {
    const own = BLACK + light;
    const green = b[i] > GREEN.bluest ? smoothStep(GREEN.from, GREEN.to, -a[i] / own) : 0;
    return green * smoothStep(BUSY.from, BUSY.to, texture[i] / own);
  });
  createBoxBlur(width, height, Math.max(1, Math.round(AROUND * width)))(leaves, leaves);
  return leaves.map((share) => smoothStep(FILLED.from, FILLED.to, share));
}
