import type { Region } from '@/core/plane/region';
import type { Fixture, Scene } from '@/core/scene/schema';

/* A node's key names exactly what its planes depend on. */

const regionKey = (region: Region) => Object.values(region).join();
export const plateKey = (asset: string, region: Region) => `plate ${asset} ${regionKey(region)}`;
export const surveyKey = ({ plate, plan }: Scene) =>
  `survey ${plate.asset} ${plan.horizon.left} ${plan.horizon.right}`;
export const reliefKey = (scene: Scene, region: Region) =>
  `relief ${scene.plate.asset} ${JSON.stringify(scene.plan)} ${regionKey(region)}`;

/** Depends on all that shapes the light, and on nothing that only weighs it. */
export function layerKey(scene: Scene, region: Region, fixtures: Fixture[]): string {
  const shapes = fixtures.map(({ at, foot, size, lumens, heart, halo, spill }) =>
    [at.u, at.v, foot.u, foot.v, size, lumens, heart, halo, spill].join(),
  );
  return `layer ${reliefKey(scene, region)} ${shapes.join(';')}`;
}
