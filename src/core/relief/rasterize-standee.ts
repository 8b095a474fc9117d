import { steepen } from '../plane/steepen';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';
import type { StandingRelief } from './relief-surfaces';

/**
 * Lays a row of a standee over what lies behind it. It faces the eye, tilted as far as its form is known; the folds of a flat one are
 * known as little as its turn. Each pixel is one or the other: between a person and a wall there is air, where a lamp may
 * hang, and halfway between a boat and water a mirror would face anywhere. But what is behind shines less where it is covered.
 *
 * @param roundRight tilts of its roundness
 */
export function rasterizeStandee(
  out: Relief,
  { first, width, ahead, foldRight, foldUp }: ReliefRow,
  standee: StandingRelief,
  roundRight: Float32Array,
  roundUp: Float32Array,
): void {
  const { coverage, roundness, creased, sheen, roughness } = standee;
  const ownAlpha = roughness * roughness;
  for (let x = 0; x < width; x++) {
    const i = first + x;
    if (coverage[i] === 0) continue;
    const share = steepen(coverage[i]);
    if (share < 0.5) {
      out.sheen[i] *= 1 - share;
      continue;
    }
    const right = roundness * roundRight[x] + creased * foldRight[x];
    const up = roundness * roundUp[x] + creased * foldUp[x];
    const level = Math.sqrt(Math.max(0.04, 1 - right * right - up * up));
    const long = Math.sqrt(right * right + up * up + level * level);
    if (standee.isLand) out.land[i] = Math.max(out.land[i], coverage[i]);
    out.reach[i] = standee.ahead / ahead[x];
    out.normalX[i] = right / long;
    out.normalY[i] = -level / long;
    out.normalZ[i] = up / long;
    out.unknownFacing[i] = 1 - roundness;
    out.sheen[i] = sheen;
    out.alpha[i] = ownAlpha;
  }
}
