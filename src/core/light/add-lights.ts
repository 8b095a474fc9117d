import { addBeamAir } from './add-beam-air';
import { addPointAir } from './add-point-air';
import type { Camera } from '../geometry/camera';
import type { Relief } from '../relief/relief-planes';
import type { Region } from '../plane/region';
import { addPointSpill } from './add-point-spill';
import { occlude, type Occluders } from './occlusion';
import type { PointLight } from './point-light';

/** Light of a region: what surfaces take and give back as mirrors, and what the air scatters. */
export interface LightPlanes {
  /** Illuminance, lux. */
  spill: Float32Array;
  air: Float32Array;
  shine?: Float32Array;
}

/** Adds what lights do to a region, with the shadows that `shades` casts. */
export function addLights(
  { spill, air, shine }: LightPlanes,
  land: Relief,
  camera: Camera,
  region: Region,
  lights: readonly PointLight[],
  shades?: Occluders,
): void {
  for (const light of lights) {
    addPointAir(air, land.reach, camera, region, light);
    addBeamAir(air, land.reach, camera, region, light);
    if (!shades) {
      addPointSpill(spill, land, camera, region, light, shine);
      continue;
    }
    const [lit, shone] = [new Float32Array(spill.length), shine && new Float32Array(spill.length)];
    addPointSpill(lit, land, camera, region, light, shone);
    const seen = Float32Array.from(lit, (value, i) => (value > 0 || (shone && shone[i] > 0) ? 1 : 0));
    occlude(seen, land, camera, region, light, shades);
    for (let i = 0; i < seen.length; i++) spill[i] += lit[i] * seen[i];
    if (shine && shone) for (let i = 0; i < seen.length; i++) shine[i] += shone[i] * seen[i];
  }
}
