import type { JoinSky } from '@/core/sky/behind-skyline';
import type { skyLight } from '@/core/sky/sky-light';
import { channels, offset, PARAMS, type Bound } from './bound';
import { SKY } from './layout';
import { raysOf } from './light-floats';

/** Kernels of the sky. */
export interface SkyKernels {
  /** As `skyLight` of the core, where no picture is laid. */
  skyLight: typeof skyLight;
  /** As `joinSky` of the core. */
  joinSky: JoinSky;
}

export function skyKernels({ exports, scratch, params, room, writePlanes, writeSmalls }: Bound): SkyKernels {
  return {
    skyLight(out, plate, land, { twilight, town, above, broad, own, cloud }, region) {
      const planes = [...channels(out), offset(cloud && out.cloud), ...channels(plate), land.byteOffset];
      const smalls = [twilight, town].flatMap(({ r, g, b, ...size }) => [r, g, b].map((data) => ({ ...size, data })));
      params.set([...above, own]);
      exports.skyLight(
        ...[writePlanes(planes), writeSmalls([...smalls, broad, ...(cloud ? [cloud] : [])], region)],
        ...[scratch + PARAMS, room, region.width, region.height],
      );
    },
    joinSky(out, { night, land, sky }, { ambient, sky: perNit, under, mist, moon }, camera, region) {
      const planes = writePlanes([
        ...[out, night, sky].flatMap((one) => channels(one)),
        ...[land.byteOffset, offset(sky.cloud)],
      ]);
      params.set([...raysOf(camera, region), ambient, perNit, ...under, ...mist.color, mist.perMetre]);
      if (moon) params.set([...moon.toward, ...moon.light, moon.haze], SKY.MOON / 4);
      else params.fill(0, SKY.MOON / 4, SKY.HAZE / 4 + 1);
      exports.joinSky(planes, scratch + PARAMS, moon ? 1 : 0, region.width, region.height);
    },
  };
}
