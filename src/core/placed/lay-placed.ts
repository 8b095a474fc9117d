import { rayThrough, type Camera } from '../geometry/camera';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { matched, type Matching } from './match-picture';
import { meetCard, sightOf, type Card } from './placed-card';

/** A picture and how far each of its pixels is there, 0 to 1. */
export interface Cutout extends RgbPlanes {
  coverage: Float32Array;
}

/**
 * Lays a placed picture over a region: its own light, matched to the plate's, where it is seen. Colours are mixed by how far they are
 * there, so that nothing of what was cut away shows at an edge.
 *
 * @param out scene-linear light and coverage of the region; light is 0 where nothing covers
 * @param cutout a copy of the picture about as fine as it is seen
 */
export function layPlaced(
  out: Cutout,
  cutout: Cutout,
  camera: Camera,
  card: Card,
  matching: Matching,
  region: Region,
): void {
  for (const plane of [out.r, out.g, out.b, out.coverage]) plane.fill(0);
  const sight = sightOf(camera, card);
  const place = new Float64Array(2);
  const { width, height } = cutout;
  const mixed = new Float64Array(4);
  for (let y = 0, i = 0; y < region.height; y++) {
    const v = (region.top + y + 0.5) / region.fullHeight;
    const [rx, ry, rz] = rayThrough(camera, { u: 0, v });
    for (let x = 0; x < region.width; x++, i++) {
      const u = (region.left + x + 0.5) / region.fullWidth;
      const [ax, ay, az] = camera.across;
      const met = meetCard(place, sight, rx + u * ax, ry + u * ay, rz + u * az);
      if (met === Infinity) continue;
      const [px, py] = [place[0] * width - 0.5, place[1] * height - 0.5];
      if (px <= -1 || py <= -1 || px >= width || py >= height) continue;
      mixAt(mixed, cutout, px, py);
      const [r, g, b, share] = mixed;
      if (share <= 0) continue;
      out.coverage[i] = share;
      out.r[i] = matched(matching, 0, r / share);
      out.g[i] = matched(matching, 1, g / share);
      out.b[i] = matched(matching, 2, b / share);
    }
  }
}

/** Coverage between four pixels, and their light weighed by it; beyond the picture's sides nothing is there. */
function mixAt(out: Float64Array, { width, height, r, g, b, coverage }: Cutout, x: number, y: number): void {
  out.fill(0);
  const [left, top] = [Math.floor(x), Math.floor(y)];
  for (let k = 0; k < 4; k++) {
    const [px, py] = [left + (k & 1), top + (k >> 1)];
    if (px < 0 || py < 0 || px >= width || py >= height) continue;
    const i = py * width + px;
    const share = coverage[i] * (1 - Math.abs(x - px)) * (1 - Math.abs(y - py));
    out[0] += share * r[i];
    out[1] += share * g[i];
    out[2] += share * b[i];
    out[3] += share;
  }
}
