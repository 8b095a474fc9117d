import { LUMINANCE } from '../color/luminance';
import { bilinearRow } from '../plane/bilinear-row';
import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { steepen } from '../plane/steepen';
import type { Survey } from '../survey/survey';

/** Coverage by land of a region as the survey found it: what is no sky. */
export function foundLand(
  out: Float32Array,
  { r, g, b }: RgbPlanes,
  survey: Pick<Survey, 'sky' | 'width' | 'height'>,
  region: Region,
): void {
  const { width, height, sky } = survey;
  const [slope, offset] = [0, 1].map(() => new Float32Array(region.width));
  for (let y = 0, i = 0; y < region.height; y++) {
    bilinearRow(slope, { width, height, data: sky.slope }, region, y);
    bilinearRow(offset, { width, height, data: sky.offset }, region, y);
    for (let x = 0; x < region.width; x++, i++) {
      const light = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
      out[i] = 1 - steepen(slope[x] * Math.cbrt(light) + offset[x]);
    }
  }
}
