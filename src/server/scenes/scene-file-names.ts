import type { Scene } from '@/core/scene/schema';

/* What a scene file holds, by name. */

export const SCENE = 'scene.json';
export const PLATE = 'plate';
export const LUT = 'lut.cube';
export const SKY = 'pictures/sky';
export const COVERAGE_NAME = /^mattes\/[0-9a-f]{64}\.png$/;
export const coverageName = (asset: string) => `mattes/${asset}.png`;

export const PLACED_NAME = /^pictures\/[0-9a-f]{64}$/;
export const placedName = (asset: string) => `pictures/${asset}`;

/** The assets of what edge brushes found in a scene, and of what there is of its placed pictures. */
export const coverageAssets = ({ mattes, placed }: Pick<Scene, 'mattes' | 'placed'>): string[] => [
  ...new Set([
    ...[...mattes, ...placed.map(({ cut }) => cut ?? { passes: [] })].flatMap(({ passes }) =>
      passes.flatMap((pass) => (pass.kind === 'edge' && pass.asset ? [pass.asset] : [])),
    ),
    ...placed.flatMap(({ alpha }) => alpha ?? []),
  ]),
];

/** The assets of a scene's placed pictures. */
export const placedAssets = ({ placed }: Pick<Scene, 'placed'>): string[] => [
  ...new Set(placed.map(({ asset }) => asset)),
];
