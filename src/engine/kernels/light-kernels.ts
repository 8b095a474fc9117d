import type { Camera } from '@/core/geometry/camera';
import { beamShape } from '@/core/light/add-beam-air';
import type { LightPlanes } from '@/core/light/add-lights';
import type { Occluders } from '@/core/light/occlusion';
import { NO_CUTOFF, type PointLight } from '@/core/light/point-light';
import type { Region } from '@/core/plane/region';
import type { Relief } from '@/core/relief/relief-planes';
import type { Rows } from '../graph/task';
import { LAYERS, LIT_PLANES, offset, PARAMS, TABLES, type Bound } from './bound';
import { LIGHT, LIT } from './layout';
import { fromEye, lightFloats, raysOf } from './light-floats';
import { writeOccluders } from './occluder-block';

/** Kernels of lamps. */
export interface LightKernels {
  addLights: (
    out: LightPlanes,
    relief: Relief,
    camera: Camera,
    region: Region,
    rows: Rows,
    lights: readonly PointLight[],
    shades: Occluders | undefined,
    /** Whether light is found on a lattice where it is smooth, within a three-hundredth of what it is. */
    thinned?: boolean,
  ) => void;
}

/** How many lights find room where else the layers lie. */
const MOST_LIGHTS = Math.floor((TABLES - LAYERS) / LIGHT.BYTES);

export function lightKernels({ exports, memory, scratch, params, room: tile }: Bound): LightKernels {
  /** Notes where what is lit lies. */
  function writeLit({ spill, air, shine }: LightPlanes, relief: Relief): void {
    const { reach, normalX, normalY, normalZ, unknownFacing, land, sheen, alpha } = relief;
    const planes = [spill, air, shine, reach, normalX, normalY, normalZ, unknownFacing, land, sheen, alpha];
    new Uint32Array(memory.buffer, scratch + LIT_PLANES, LIT.BYTES / 4).set(planes.map(offset));
  }

  return {
    addLights(out, relief, camera, region, rows, lights, shades, thinned = true) {
      const rays = raysOf(camera, region);
      const block = writeOccluders(memory, scratch + TABLES, shades, camera);
      const room = new Float32Array(memory.buffer, scratch + LAYERS, (MOST_LIGHTS * LIGHT.BYTES) / 4);
      for (let first = 0; first < lights.length; first += MOST_LIGHTS) {
        const some = lights.slice(first, first + MOST_LIGHTS);
        params.set(rays);
        writeLit(out, relief);
        some.forEach((light, k) => room.set(lightFloats(light, camera, region), (k * LIGHT.BYTES) / 4));
        exports.addPointLights(
          scratch + LIT_PLANES,
          scratch + PARAMS,
          scratch + LAYERS,
          some.length,
          block,
          tile,
          thinned ? 1 : 0,
          region.width,
          rows.from,
          rows.to,
        );
      }
      for (const light of lights) {
        const { facing, focus, airCandela, radius, cutoff = NO_CUTOFF } = light;
        if (focus === undefined || !facing || airCandela === 0) continue;
        const { weight, narrow, least } = beamShape(airCandela, focus);
        const beam = [...facing, weight, narrow, radius * radius, focus, cutoff, least];
        params.set([...rays, ...fromEye(light, camera), ...beam]);
        exports.addBeamAir(
          offset(out.air),
          offset(relief.reach),
          scratch + PARAMS,
          region.width,
          rows.from,
          rows.to,
        );
      }
    },
  };
}
