import type { Region } from '@/core/plane/region';
import type { Fixture } from '@/core/scene/schema';
import type { FrameRequest } from './frame-request';

/* A node's key names exactly what its planes depend on. */

const regionKey = (region: Region) => Object.values(region).join();

export const plateKey = (asset: string, region: Region) => `plate ${asset} ${regionKey(region)}`;

/** The horizon by which ground and sky are told apart. */
export const surveyHorizon = ({ scene, surveyAt }: FrameRequest) => surveyAt ?? scene.plan.horizon;

export function surveyKey(request: FrameRequest): string {
  const { left, right } = surveyHorizon(request);
  return `survey ${request.scene.plate.asset} ${left} ${right}`;
}

export function reliefKey(request: FrameRequest): string {
  return `relief ${surveyKey(request)} ${JSON.stringify(request.scene.plan)} ${regionKey(request.region)}`;
}

/** Depends on all that shapes the light, and on nothing that only weighs it. */
export function layerKey(request: FrameRequest, fixtures: Fixture[]): string {
  const shapes = fixtures.map(({ at, foot, size, lumens, heart, halo, spill }) =>
    [at.u, at.v, foot.u, foot.v, size, lumens, heart, halo, spill].join(),
  );
  return `layer ${reliefKey(request)} ${shapes.join(';')}`;
}
