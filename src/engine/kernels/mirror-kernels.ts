import type { addMirrors } from '@/core/mirror/add-mirrors';
import type { KnownLight } from '@/core/mirror/bilinear-light';
import type { fillPyramid } from '@/core/mirror/light-pyramid';
import type { mirrorImage } from '@/core/mirror/mirror-image';
import { channels, PARAMS, type Bound } from './bound';
import { raysOf } from './light-floats';

/** Kernels of what surfaces mirror: as those of the core. */
export interface MirrorKernels {
  fillPyramid: typeof fillPyramid;
  mirrorImage: typeof mirrorImage;
  addMirrors: typeof addMirrors;
}

/** A pyramid as kernels know it: how many levels there are, and of each where it lies, its width and height. */
const listOf = (levels: readonly KnownLight[]) => [
  levels.length,
  ...levels.flatMap(({ data, width, height }) => [data.byteOffset, width, height]),
];

export function mirrorKernels({
  exports,
  scratch,
  params,
  room,
  placeOn,
  writePlanes,
  writeSmalls,
}: Bound): MirrorKernels {
  return {
    fillPyramid(levels, light) {
      exports.fillPyramid(writePlanes([...channels(light), ...listOf(levels)]));
    },
    mirrorImage(out, levels, { u, v, behind, weight, alpha, facing }, focal) {
      const planes = writePlanes([
        ...[out, u, v, behind, weight, alpha, facing].map(({ byteOffset }) => byteOffset),
        ...listOf(levels),
      ]);
      exports.mirrorImage(planes, 2 * focal * levels[0].width, weight.length);
    },
    addMirrors(out, { sheen, normalX, normalY, normalZ, land }, image, camera, region, strength) {
      const { width, height, data, weight, ripples } = image;
      const listed = [
        ...channels(out),
        ...[sheen, normalX, normalY, normalZ, land, data].map(({ byteOffset }) => byteOffset),
      ];
      // Small pictures are listed behind the room of one: twelve words, of which these planes take eleven.
      const planes = writePlanes([...listed, width, height]);
      const smalls = writeSmalls(
        [weight, ripples].map((plane) => ({ width, height, data: plane })),
        region,
      );
      const turn = 2 * camera.focal;
      params.set([
        ...raysOf(camera, region),
        turn * width,
        turn * camera.aspect * height,
        strength,
        ...placeOn(image, region),
      ]);
      exports.addMirrors(planes, smalls, scratch + PARAMS, room, region.width, region.height);
    },
  };
}
