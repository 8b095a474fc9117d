import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';

/** Light that falls off toward the corners by the fourth power of the cosine. */
export function vignette(out: RgbPlanes, light: RgbPlanes, region: Region, amount: number): void {
  for (let i = 0; i < light.r.length; i++) {
    const x = (region.left + (i % region.width)) / region.fullWidth - 0.5;
    const y = (region.top + Math.floor(i / region.width)) / region.fullHeight - 0.5;
    const share = 1 - amount * Math.min(1, 2 * (x * x + y * y));
    out.r[i] = share * light.r[i];
    out.g[i] = share * light.g[i];
    out.b[i] = share * light.b[i];
  }
}
