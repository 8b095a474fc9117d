import { developLight } from '../film/develop-light';
import type { Box } from '../plane/box';
import type { RgbPlanes } from '../plane/plane';
import type { TouchAct } from './touch-schema';

/** A picture under a brush: what each place gains from a stroke that is laid on it, for a region, one float a pixel. */
export interface TouchGround {
  /** Light that the film is exposed to without the stroke. */
  light: RgbPlanes;
  /** Light that a full touch adds, or that which it lifts. */
  gain: RgbPlanes;
  /** Share of a full touch that is there already, and what is still to come; together they are all that may be. */
  taken: Float32Array;
  room: Float32Array;
}

/** A stroke as it is laid on. */
export interface StrokeLaid {
  does: TouchAct;
  /** Stops of a full touch that lifts. */
  stops: number;
  strength: number;
  erase: boolean;
}

/**
 * Light of a part of the picture while a stroke is laid on it: as the sum of all light has it once the stroke is let go, but for
 * what the lens spreads of the stroke's own light.
 *
 * @param out planes of the box, row by row
 * @param covered how far the stroke is laid on, 0 to 1, of the whole region
 */
export function touchedLight(
  out: RgbPlanes,
  { light, gain, taken, room }: TouchGround,
  covered: Float32Array,
  { does, stops, strength, erase }: StrokeLaid,
  { left, top, right, bottom }: Box,
): void {
  const { width } = light;
  for (let y = top, o = 0; y < bottom; y++) {
    for (let x = left, i = y * width + left; x < right; x++, i++, o++) {
      const more = strength * covered[i] * (erase ? -taken[i] : room[i]);
      const share = does === 'lift' ? 2 ** (stops * more) - 1 : more;
      out.r[o] = light.r[i] + share * gain.r[i];
      out.g[o] = light.g[i] + share * gain.g[i];
      out.b[o] = light.b[i] + share * gain.b[i];
    }
  }
}

/**
 * The same developed: RGBA codes of the box, row by row.
 *
 * @param codes table from `createDisplayCodes`, for 255 levels
 */
export function touchedCodes(
  ground: TouchGround,
  covered: Float32Array,
  laid: StrokeLaid,
  box: Box,
  codes: Uint16Array,
): Uint8ClampedArray<ArrayBuffer> {
  const [width, height] = [box.right - box.left, box.bottom - box.top];
  const plane = () => new Float32Array(width * height);
  const light = { width, height, r: plane(), g: plane(), b: plane() };
  touchedLight(light, ground, covered, laid, box);
  const out = new Uint8ClampedArray(4 * width * height);
  developLight(out, light, codes);
  return out;
}
