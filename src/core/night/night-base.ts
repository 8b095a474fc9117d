import { LUMINANCE } from '../color/luminance';
import type { Rgb } from '../color/rgb';
import { filmResponse, filmUnresponse } from '../film/film-response';
import type { CubeLut } from '../grade/cube-lut';
import type { Grade } from '../grade/grade';
import { gradeColor } from '../grade/grade-color';
import type { RgbPlanes } from '../plane/plane';
import type { AmbientLight } from './ambient-light';
import { highlightHold } from './highlight-hold';

/** A grade with its tables, and the look-up table where it has one. */
export interface GradeKit {
  grade: Grade;
  tables: Float32Array;
  lut?: CubeLut;
}

/** One colour of the plate as scene light under the night's ambient light alone, before its grade. */
export function ambientColor([r, g, b]: Rgb, light: AmbientLight, open = 1): Rgb {
  const { gains, saturation, grey, hold, holdMiddle } = light;
  const left = open * highlightHold(LUMINANCE[0] * r + LUMINANCE[1] * g + LUMINANCE[2] * b, hold, holdMiddle);
  const faded = (1 - saturation) * Math.max(0, grey[0] * r + grey[1] * g + grey[2] * b);
  return [
    left * gains[0] * (faded + saturation * r),
    left * gains[1] * (faded + saturation * g),
    left * gains[2] * (faded + saturation * b),
  ];
}

/**
 * The plate as scene light under the night's ambient light alone: darkened, and graded so that the film shows it as the
 * grade wants it. Light of lamps is added to it later.
 *
 * @param open factor of the surroundings, one a pixel; none leaves all open
 */
export function nightBase(
  out: RgbPlanes,
  plate: RgbPlanes,
  light: AmbientLight,
  open?: Float32Array,
  kit?: GradeKit,
): void {
  for (let i = 0; i < plate.r.length; i++) {
    const ambient = ambientColor([plate.r[i], plate.g[i], plate.b[i]], light, open?.[i]);
    const base = kit
      ? filmUnresponse(gradeColor(filmResponse(ambient), kit.grade, kit.tables, kit.lut))
      : ambient;
    [out.r[i], out.g[i], out.b[i]] = base;
  }
}
