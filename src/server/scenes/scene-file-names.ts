import type { Scene } from '@/core/scene/schema';

/* What a scene file holds, by name. */

export const SCENE = 'scene.json';
export const PLATE = 'plate';
export const LUT = 'lut.cube';
export const SKY = 'pictures/sky';
export const COVERAGE_NAME = /^mattes\/[0-9a-f]{64}\.png$/;
export const coverageName = (asset: string) => `mattes/${asset}.png`;

/** The assets of what edge brushes found in a scene. */
export const coverageAssets = ({ mattes }: Pick<Scene, 'mattes'>): string[] => [
  ...new Set(
    mattes.flatMap(({ passes }) =>
      passes.flatMap((pass) => (pass.kind === 'edge' && pass.asset ? [pass.asset] : [])),
    ),
  ),
];
