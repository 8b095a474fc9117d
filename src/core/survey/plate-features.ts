import { linearToOklab } from '../color/linear-to-oklab';
import { createBoxBlur } from '../plane/box-blur';
import type { RgbPlanes } from '../plane/plane';
import { dayBalance } from './day-balance';

/** How well a cast is told, of a lightness of 1. */
const CAST_DOUBT = 0.015;

/** What the survey looks at, one float a pixel: blurred Oklab as of a plain day, and how busy the neighbourhood is. */
export interface PlateFeatures {
  width: number;
  height: number;
  /** Unblurred Oklab lightness: the guide of every refinement. */
  lightness: Float32Array;
  softLightness: Float32Array;
  a: Float32Array;
  b: Float32Array;
  /** Standard deviation of lightness in the neighbourhood. */
  texture: Float32Array;
  /** How many times the plate's own lightness all this is. */
  lift: number;
  /** By how much of white its colours may still be too yellow, where they were balanced: 0 where nothing was to do. */
  doubt: number;
  /** Whether all is of one hue, so that colour tells nothing apart. */
  oneHue: boolean;
}

/** Features of a small plate (some 400 pixels wide): whatever its exposure and white balance, as those of a plain day. */
export function plateFeatures(plate: RgbPlanes): PlateFeatures {
  const { width, height } = plate;
  const size = width * height;
  const lightness = new Float32Array(size);
  const a = new Float32Array(size);
  const b = new Float32Array(size);
  const texture = new Float32Array(size);
  const softLightness = new Float32Array(size);
  for (let i = 0; i < size; i++) {
    [lightness[i], a[i], b[i]] = linearToOklab([plate.r[i], plate.g[i], plate.b[i]]);
  }
  const { lift, cast, oneHue } = dayBalance(lightness, a, b);
  for (let i = 0; i < size; i++) {
    a[i] = lift * (a[i] - cast.a * lightness[i]);
    b[i] = lift * (b[i] - cast.b * lightness[i]);
    lightness[i] *= lift;
    texture[i] = lightness[i] * lightness[i];
  }
  const blur = createBoxBlur(width, height, 1);
  blur(a, a);
  blur(b, b);
  blur(softLightness, lightness);
  blur(texture, texture);
  for (let i = 0; i < size; i++) {
    texture[i] = Math.sqrt(Math.max(0, texture[i] - softLightness[i] * softLightness[i]));
  }
  return {
    width,
    height,
    lightness,
    softLightness,
    a,
    b,
    texture,
    lift,
    oneHue,
    doubt: cast.b === 0 || oneHue ? 0 : CAST_DOUBT,
  };
}
