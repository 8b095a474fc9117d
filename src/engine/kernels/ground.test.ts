import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RELIEF_PLANES, type Relief } from '@/core/relief/relief-planes';
import { reliefOf } from '@/core/relief/relief';
import { NO_SURFACES } from '@/core/relief/relief-surfaces';
import { CAMERA, COUNT, expectAlike, kernels, planesOf, REGION, seeds } from '../../../test/kernel-planes';

/** Over the horizon and under it. */
const PARTS = [
  { ...REGION, left: 40, top: 110, fullWidth: 300, fullHeight: 200 },
  { ...REGION, left: 0, top: 60, fullWidth: 300, fullHeight: 200 },
  { ...REGION, left: 200, top: 75, fullWidth: 300, fullHeight: 200 },
];

/** What differs of the surfaces that are laid. */
const cases = fc.record({
  region: fc.constantFrom(...PARTS),
  ...{ hasWater: fc.boolean(), isFolded: fc.boolean(), isWet: fc.boolean(), hasSkyline: fc.boolean() },
});

/** Level ground, a wall's height of things that stand, water, and folds, all from a seed. */
function madeUp(seed: number, { hasWater, isFolded, isWet, hasSkyline }: Record<string, unknown>) {
  const { plane, rgb, random, release } = planesOf(seed);
  const [width, height] = [23, 15];
  const small = (least: number, most: number) => plane(least, most, width * height);
  const line = () => ({ slope: small(-1, 1), offset: small(-0.5, 1.2) });
  const survey = {
    ...{ width, height, ground: line(), sky: line(), water: hasWater ? line() : undefined },
    ...{ feet: small(0.45, 1), leaves: small(0, 0), medianLuminance: 0.18 },
  };
  const surfaces = {
    ...NO_SURFACES,
    ground: { sheen: random(), roughness: random(), crease: isFolded ? random() : 0 },
    folds: isFolded || hasWater ? { width, height, right: small(-1, 1), up: small(-1, 1) } : undefined,
    wet: isWet ? plane(0, 1) : undefined,
    skyline: hasSkyline ? plane(0, 1) : undefined,
  };
  // Sky alone, where nothing of the land is seen.
  surfaces.skyline?.fill(0, 0, 99);
  return { survey, surfaces, plate: rgb(0, 1), plane, release };
}

describe('the lie of the land by kernels and by the core', () => {
  it('is the same: ground, what stands, water and the way through haze', () => {
    fc.assert(
      fc.property(seeds, cases, (seed, { region, ...has }) => {
        const { survey, surfaces, plate, plane, release } = madeUp(seed, has);
        const relief = () =>
          Object.fromEntries(RELIEF_PLANES.map((name) => [name, plane(0, 0)])) as unknown as Relief;
        const [laid, told] = [relief(), relief()];
        reliefOf(laid, plate, survey, CAMERA, region, surfaces, kernels);
        reliefOf(told, plate, survey, CAMERA, region, surfaces);
        for (const name of RELIEF_PLANES) expectAlike(laid[name], told[name], 1e-3, 1e-4);
        expect(told.reach.every(Number.isFinite)).toBe(true);
        expect(laid.reach.length).toBe(COUNT);
        release();
      }),
      { numRuns: 60 },
    );
  });
});
