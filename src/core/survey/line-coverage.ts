import { LUMINANCE } from '../color/luminance';
import type { GuidedLine } from '../plane/guided-filter';
import type { RgbPlanes } from '../plane/plane';
import { lineCoverageAt } from '../plane/line-coverage-at';

/** Coverage of a small copy of a plate by what a survey found, ground, sky or water, 0 to 1, from its line. */
export function lineCoverage(plate: RgbPlanes, { slope, offset }: GuidedLine): Float32Array {
  return Float32Array.from(plate.r, (red, i) => {
    const light = LUMINANCE[0] * red + LUMINANCE[1] * plate.g[i] + LUMINANCE[2] * plate.b[i];
    return lineCoverageAt(slope[i], offset[i], light);
  });
}
