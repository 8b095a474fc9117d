import { FARTHEST_GROUND } from '../geometry/ground';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';
import { rippleNormal } from './ripple';
import { intersectLevel } from '../plan/surfaces';
import type { Surfaces } from './relief-surfaces';

/** A deck that lies this much farther off than a drawn wall lies behind it: its foot may stand on the deck's very edge. */
const BEHIND = 1.02;

/** Lays a row of a deck, where its outline covers most of a pixel and no drawn wall stands before it. */
export function rasterizeDeck(
  out: Relief,
  { first, width, ahead, rise, met, foldRight, foldUp }: ReliefRow,
  { height, sheen, roughness, crease }: Surfaces['decks'][number],
  coverage: Float32Array,
  eyeHeight: number,
): void {
  for (let x = 0; x < width; x++) {
    if (coverage[x] < 0.5) continue;
    const level = intersectLevel(height, eyeHeight, rise[x]);
    if (level === Infinity || level > BEHIND * met[x]) continue;
    const i = first + x;
    out.reach[i] = Math.min(level, FARTHEST_GROUND / ahead[x]);
    out.normalX[i] = out.normalY[i] = out.unknownFacing[i] = 0;
    out.normalZ[i] = height < eyeHeight ? 1 : -1;
    out.sheen[i] = sheen;
    out.alpha[i] = roughness * roughness;
    if (crease > 0) rippleNormal(out, i, crease * foldRight[x], crease * foldUp[x]);
  }
}
