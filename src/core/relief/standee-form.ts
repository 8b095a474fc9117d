import { LUMINANCE } from '../color/luminance';
import { boxAround, cutBox, grown, pasteBox } from '../plane/box';
import { createBoxBlur } from '../plane/box-blur';
import { dilate } from '../plane/dilate';
import { distanceInside } from '../plane/distance-inside';
import type { RgbPlanes } from '../plane/plane';
import { hypot } from '../plane/hypot';

/** Tilts of a surface's normal, to the right and up, as components of a unit vector. */
export interface Tilts {
  width: number;
  height: number;
  right: Float32Array;
  up: Float32Array;
}

/**
 * Tilts of a standee as if it were blown up like a barrel: level at its rim, toward the eye along its middle line.
 *
 * @param coverage of a small copy of the plate
 */
export function roundTilts(coverage: Float32Array, width: number, height: number): Tilts {
  const right = new Float32Array(coverage.length);
  const tilts = { width, height, right, up: right.slice() };
  const seen = boxAround(width, height, (i) => coverage[i] > 0);
  if (!seen) return tilts;
  const deepest = Math.max(seen.right - seen.left, seen.bottom - seen.top) >> 1;
  const box = grown(seen, deepest + 2, width, height);
  const part = barrelTilts(cutBox(coverage, width, box), box.right - box.left, box.bottom - box.top);
  pasteBox(tilts.right, width, box, part.right);
  pasteBox(tilts.up, width, box, part.up);
  return tilts;
}

function barrelTilts(coverage: Float32Array, width: number, height: number): Tilts {
  const inside = distanceInside(coverage, width, height);
  const deepest = inside.reduce((most, value) => Math.max(most, value), 0);
  const half = inside.slice();
  dilate(half, width, height, Math.max(1, deepest));
  createBoxBlur(width, height, Math.max(1, Math.round(deepest / 2)))(half, half);
  const smooth = new Float32Array(inside.length);
  createBoxBlur(width, height, 1)(smooth, inside);
  const right = new Float32Array(inside.length);
  const tilts = { width, height, right, up: right.slice() };
  slopes(tilts, smooth);
  for (let i = 0; i < inside.length; i++) {
    const [x, y] = [tilts.right[i], tilts.up[i]];
    const steep = hypot(x, y);
    const rim = inside[i] > 0 ? Math.max(0, 1 - smooth[i] / Math.max(1, half[i])) : 0;
    const scale = steep > 1e-6 ? rim / Math.max(1, steep) : 0;
    tilts.right[i] = -x * scale;
    tilts.up[i] = -y * scale;
  }
  return tilts;
}

/** Scale of the shading that counts as a fold, fraction of the width, and how steep a stop over it stands. */
const FOLD = { fine: 0.0012, wide: 0.008, steep: 1.6 } as const;

/** Luminance that counts as black. */
const BLACK = 1 / 512;

/** Tilts of folds by the plate's fine shading: what is darker than around it lies deeper. */
export function creaseTilts({ width, height, r, g, b }: RgbPlanes): Tilts {
  const stops = r.map((red, i) =>
    Math.log2(BLACK + Math.max(0, LUMINANCE[0] * red + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i])),
  );
  const at = (scale: number, least: number) => {
    const out = new Float32Array(stops.length);
    createBoxBlur(width, height, Math.max(least, Math.round(scale * width)))(out, stops);
    return out;
  };
  const [fine, wide] = [at(FOLD.fine, 1), at(FOLD.wide, 2)];
  const relief = fine.map((value, i) => (value - wide[i]) * FOLD.steep);
  const tilts = { width, height, right: new Float32Array(stops.length), up: new Float32Array(stops.length) };
  slopes(tilts, relief);
  for (let i = 0; i < stops.length; i++) {
    const long = hypot(1, tilts.right[i], tilts.up[i]);
    tilts.right[i] /= -long;
    tilts.up[i] /= -long;
  }
  return tilts;
}

/** Slopes of a height to the right and up, by central differences; at the picture's edge none. */
function slopes({ width, height, right, up }: Tilts, data: Float32Array): void {
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      right[i] = (data[i + 1] - data[i - 1]) / 2;
      up[i] = (data[i - width] - data[i + width]) / 2;
    }
  }
}
