import { linearToOklab } from '../color/linear-to-oklab';
import type { PlatePoint } from '../geometry/camera';
import { fillHoles } from '../plane/fill-holes';
import { flood } from '../plane/flood';
import type { GuidedLine } from '../plane/guided-filter';
import type { RgbPlanes } from '../plane/plane';
import { followEdges } from './follow-edges';
import type { AreaPass } from './pass';
import { hypot } from '../plane/hypot';

/** Holes up to this share of the picture belong to the area around them. */
const LARGEST_HOLE = 0.0004;

/** Pixels around the seed, each way, whose mean is what the area must look like. */
const SEED = 1;

/** The pixel of a plane at a place of the plate, held inside. */
function pixelAt({ u, v }: PlatePoint, width: number, height: number): [x: number, y: number] {
  const cell = (value: number, size: number) => Math.min(size - 1, Math.max(0, Math.floor(value * size)));
  return [cell(u, width), cell(v, height)];
}

/**
 * What looks like a seed's place on a small copy of the plate, as local lines of the cube root of luminance, so that its
 * edge follows a plate of any size.
 */
export function findArea(plate: RgbPlanes, { at, tolerance, connected }: AreaPass): GuidedLine {
  const { width, height, r, g, b } = plate;
  const labs = Array.from(r, (red, i) => linearToOklab([red, g[i], b[i]]));
  const [x, y] = pixelAt(at, width, height);
  const seed = [0, 0, 0];
  let seen = 0;
  for (let j = Math.max(0, y - SEED); j <= Math.min(height - 1, y + SEED); j++) {
    for (let i = Math.max(0, x - SEED); i <= Math.min(width - 1, x + SEED); i++, seen++) {
      labs[j * width + i].forEach((value, c) => (seed[c] += value));
    }
  }
  const [l0, a0, b0] = seed.map((sum) => sum / seen);
  const like = Uint8Array.from(labs, ([l, a, c]) => (hypot(l - l0, a - a0, c - b0) <= tolerance ? 1 : 0));
  let area = like;
  if (connected) {
    area = new Uint8Array(like.length);
    const reached = new Int32Array(like.length);
    const found = flood(reached, like, width, height, y * width + x);
    for (let k = 0; k < found; k++) area[reached[k]] = 1;
    fillHoles(area, width, height, LARGEST_HOLE * area.length);
  }
  return followEdges(plate, Float32Array.from(area));
}
