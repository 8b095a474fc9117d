import { FINISHES } from '@/core/plan/finishes';
import type { LayRegion } from '@/core/relief/relief';
import { RELIEF_PLANES } from '@/core/relief/relief-planes';
import { channels, offset, PARAMS, type Bound } from './bound';
import { GROUND } from './layout';
import { raysOf } from './light-floats';

/** Kernels of the lie of the land. */
export type ReliefKernels = LayRegion;

export function reliefKernels({
  exports,
  memory,
  scratch,
  params,
  room,
  writePlanes,
  writeSmalls,
}: Bound): ReliefKernels {
  const exact = new Float64Array(memory.buffer, scratch + PARAMS, GROUND.DOWN / 8);
  return {
    layGround(
      out,
      plate,
      { width, height, ground, sky, feet, water },
      camera,
      region,
      { ground: finish, wet, folds },
    ) {
      const { down, eyeHeight } = camera;
      const { top, fullHeight } = region;
      const calm = FINISHES.water;
      exact.set([...raysOf(camera, region), (top + 0.5) / fullHeight, 1 / fullHeight]);
      const finishes = [finish, calm].flatMap(({ roughness, sheen, crease }) => [roughness, sheen, crease]);
      params.set([down[1], down[2], eyeHeight, ...finishes], GROUND.DOWN / 4);
      const lines = [ground.slope, ground.offset, sky.slope, sky.offset, feet, water?.slope, water?.offset];
      const found = lines.map((data) => ({ width, height, data: data ?? feet }));
      const tilts = folds ? [folds.right, folds.up].map((data) => ({ ...folds, data })) : [];
      exports.layGround(
        writePlanes([...RELIEF_PLANES.map((name) => out[name].byteOffset), ...channels(plate)]),
        ...[offset(wet), writeSmalls([...found, ...tilts], region), water ? 1 : 0, folds ? 1 : 0],
        ...[scratch + PARAMS, room, region.width, region.height],
      );
    },
    throughHaze({ distance, reach, land }, camera, region, skyline) {
      exact.set(raysOf(camera, region));
      exports.throughHaze(
        ...[distance, reach, land].map(offset),
        ...[offset(skyline), scratch + PARAMS, region.width, region.height],
      );
    },
  };
}
