import type { JoinSky } from '@/core/sky/behind-skyline';
import { toldPlanes, type FreeLand } from '@/core/sky/free-land';
import type { skyLight } from '@/core/sky/sky-light';
import { LEAST_SIDE } from '../sizes';
import { channels, offset, PARAMS, type Bound } from './bound';
import { SKY } from './layout';
import { raysOf } from './light-floats';

/** Kernels of the sky. */
export interface SkyKernels {
  /** As `skyLight` of the core, where no picture is laid. */
  skyLight: typeof skyLight;
  /** As `joinSky` of the core. */
  joinSky: JoinSky;
  /** As that of the core. */
  freeLand: FreeLand;
}

export function skyKernels({ exports, scratch, params, room, writePlanes, writeSmalls }: Bound): SkyKernels {
  return {
    skyLight(out, plate, land, { twilight, town, above, broad, own, cloud }, region) {
      const planes = [...channels(out), offset(cloud && out.cloud), ...channels(plate), land.byteOffset];
      const smalls = [twilight, town].flatMap(({ r, g, b, ...size }) =>
        [r, g, b].map((data) => ({ ...size, data })),
      );
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
    freeLand(out, plate, told, region, { left: from, top, right: to, bottom }) {
      // A narrow box reaches over what lies beside it: it comes to the same.
      const left = Math.max(0, Math.min(from, to - LEAST_SIDE));
      const [width, height] = [Math.max(LEAST_SIDE, to - left), bottom - top];
      const first = top * region.width + left;
      const box = { ...region, left: region.left + left, top: region.top + top, width, height };
      const land = out.land.byteOffset + 4 * first;
      exports.freeLand(
        ...[
          writePlanes([...channels(out, first), land, ...channels(plate, first)]),
          writeSmalls(toldPlanes(told), box),
        ],
        ...[room, region.width, width, height],
      );
    },
  };
}
