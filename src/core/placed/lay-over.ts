import type { RgbPlanes } from '../plane/plane';
import type { Cutout } from './lay-placed';

/**
 * Lays a placed picture over a plate. Where land covers a pixel in part, before a sky, the plate's colour is the land's own: it keeps
 * the part of the pixel that the picture leaves it.
 *
 * @param out the plate's light, changed in place
 * @param land coverage by land so far, changed in place; without it land is everywhere
 */
export function layOver(out: RgbPlanes, { r, g, b, coverage }: Cutout, land?: Float32Array): void {
  for (let i = 0; i < coverage.length; i++) {
    const share = coverage[i];
    if (share === 0) continue;
    const left = (1 - share) * (land ? land[i] : 1);
    const weight = share / (share + left);
    out.r[i] += weight * (r[i] - out.r[i]);
    out.g[i] += weight * (g[i] - out.g[i]);
    out.b[i] += weight * (b[i] - out.b[i]);
    if (land) land[i] = share + left;
  }
}

/** A plate with placed pictures laid over it, the first of them first. @param land as `layOver` takes it */
export function layAll(
  out: RgbPlanes,
  plate: RgbPlanes,
  pictures: readonly Cutout[],
  land?: Float32Array,
): void {
  for (const c of ['r', 'g', 'b'] as const) out[c].set(plate[c]);
  for (const one of pictures) layOver(out, one, land);
}
