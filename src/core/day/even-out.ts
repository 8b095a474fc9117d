import { LUMINANCE } from '../color/luminance';
import { bilinearRow } from '../plane/bilinear-row';
import { createGuidedFilter, type GuidedLine } from '../plane/guided-filter';
import { lineCoverageAt } from '../plane/line-coverage-at';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';

/** The day's own shading: a smooth, edge-keeping estimate of luminance in stops, as local lines of luminance in stops. */
export interface Shading {
  width: number;
  height: number;
  line: GuidedLine;
}

/** Window as a fraction of the width, and the variance in stops under which a place counts as flat. */
const SMOOTH = { radius: 0.05, epsilon: 0.16 } as const;

/** How far the dark is lifted where the bright is let down wholly: much that is dark is dark by itself. */
export const LIFT = 0.35;

/** Luminance that counts as black. */
export const BLACK = 1 / 512;

/** The level toward which places move, stops. */
export const levelOf = (medianLuminance: number): number => Math.log2(BLACK + medianLuminance);

/** Stops of a luminance. */
export const stopsOf = (luminance: number) => Math.log2(BLACK + Math.max(0, luminance));

/** The shading of a plate from a small copy of it: a guided filter on log luminance (He, Sun and Tang 2013). */
export function shadingOf({ width, height, r, g, b }: RgbPlanes): Shading {
  const stops = Float32Array.from(r, (red, i) =>
    stopsOf(LUMINANCE[0] * red + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i]),
  );
  const radius = Math.max(1, Math.round(SMOOTH.radius * width));
  return { width, height, line: createGuidedFilter(stops, width, height, radius, SMOOTH.epsilon)(stops) };
}

/**
 * How far each place would move to be level, stops: what is lighter than the land's median sinks toward it, what is darker
 * rises a little, while the texture within stays. The sky is left alone.
 *
 * @param out one float per pixel of the region
 * @param medianLuminance luminance toward which places are levelled
 * @param skyCover coverage by sky as local lines of the cube root of luminance, of the shading's size
 */
export function levelling(
  out: Float32Array,
  plate: RgbPlanes,
  { width, height, line }: Shading,
  skyCover: GuidedLine,
  region: Region,
  medianLuminance: number,
): void {
  const row = () => new Float32Array(region.width);
  const [slope, offset, skySlope, skyOffset] = [row(), row(), row(), row()];
  const level = levelOf(medianLuminance);
  const plane = (data: Float32Array) => ({ width, height, data });
  for (let y = 0; y < region.height; y++) {
    bilinearRow(slope, plane(line.slope), region, y);
    bilinearRow(offset, plane(line.offset), region, y);
    bilinearRow(skySlope, plane(skyCover.slope), region, y);
    bilinearRow(skyOffset, plane(skyCover.offset), region, y);
    for (let x = 0; x < region.width; x++) {
      const i = y * region.width + x;
      const shown = LUMINANCE[0] * plate.r[i] + LUMINANCE[1] * plate.g[i] + LUMINANCE[2] * plate.b[i];
      const land = 1 - lineCoverageAt(skySlope[x], skyOffset[x], shown);
      const away = level - slope[x] * stopsOf(shown) - offset[x];
      out[i] = land * (away > 0 ? LIFT * away : away);
    }
  }
}

/**
 * The plate with so much of the day's shading taken out. `out` may be the plate.
 *
 * @param shift what `levelling` found
 * @param amount 0 as it is, 1 level
 */
export function evenOut(out: RgbPlanes, plate: RgbPlanes, shift: Float32Array, amount: number): void {
  const perStop = amount * Math.LN2;
  for (let i = 0; i < shift.length; i++) {
    const gain = Math.exp(perStop * shift[i]);
    out.r[i] = plate.r[i] * gain;
    out.g[i] = plate.g[i] * gain;
    out.b[i] = plate.b[i] * gain;
  }
}
