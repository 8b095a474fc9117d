import { firm } from './firm';
import type { Relief } from './relief';
import type { ReliefRow } from './relief-row';
import type { StandingRelief } from './surfaces';

/**
 * Lays a row of a standee over what lies behind it, blended across its edge. It faces the eye, tilted as far as its form is known; the
 * folds of a flat one are known as little as its turn.
 *
 * @param roundRight tilts of its roundness
 */
export function layStandee(
  out: Relief,
  { first, width, ahead, foldRight, foldUp }: ReliefRow,
  standee: StandingRelief,
  roundRight: Float32Array,
  roundUp: Float32Array,
): void {
  const { coverage, roundness, creased, sheen, roughness } = standee;
  const { reach, normalX, normalY, normalZ, unturned, alpha } = out;
  const ownAlpha = roughness * roughness;
  for (let x = 0; x < width; x++) {
    const i = first + x;
    if (coverage[i] === 0) continue;
    const share = firm(coverage[i]);
    if (share === 0) continue;
    const right = roundness * roundRight[x] + creased * foldRight[x];
    const up = roundness * roundUp[x] + creased * foldUp[x];
    const level = Math.sqrt(Math.max(0.04, 1 - right * right - up * up));
    const own = share / Math.sqrt(right * right + up * up + level * level);
    const behind = 1 - share;
    reach[i] = 1 / (behind / reach[i] + (share * ahead[x]) / standee.ahead);
    const nx = behind * normalX[i] + own * right;
    const ny = behind * normalY[i] - own * level;
    const nz = behind * normalZ[i] + own * up;
    const long = Math.sqrt(Math.max(1e-6, nx * nx + ny * ny + nz * nz));
    normalX[i] = nx / long;
    normalY[i] = ny / long;
    normalZ[i] = nz / long;
    unturned[i] = behind * unturned[i] + share * (1 - roundness);
    out.sheen[i] = behind * out.sheen[i] + share * sheen;
    alpha[i] = behind * alpha[i] + share * ownAlpha;
  }
}
