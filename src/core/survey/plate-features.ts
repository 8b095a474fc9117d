import { linearToOklab } from '../color/linear-to-oklab';
import { createBoxBlur } from '../plane/box-blur';
import type { RgbPlanes } from '../plane/plane';

/** What the survey looks at, one float a pixel: blurred Oklab, and how busy the neighbourhood is. */
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
}

/** Features of a small plate (some 400 pixels wide). */
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
  return { width, height, lightness, softLightness, a, b, texture };
}
