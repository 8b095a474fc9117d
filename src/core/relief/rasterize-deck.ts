import { FARTHEST_GROUND } from '../geometry/ground';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';
import { rippleNormal } from './ripple';
import { intersectDeck, type DeckPlane } from '../plan/deck-plane';
import type { RippledFinish } from '../plan/surfaces';

/** A deck that lies this much farther off than a drawn wall lies behind it: its foot may stand on the deck's very edge. */
const BEHIND = 1.02;

/** A deck as the relief lays it. */
export interface DeckRelief {
  plane: DeckPlane;
  finish: RippledFinish;
}

/** Lays a row of a deck, where its outline covers most of a pixel and no drawn wall stands before it. */
export function rasterizeDeck(
  out: Relief,
  { first, width, aside, ahead, rise, met, foldRight, foldUp }: ReliefRow,
  { plane, finish: { sheen, roughness, crease } }: DeckRelief,
  coverage: Float32Array,
  eyeHeight: number,
): void {
  // It shows its upper side where the eye is over its plane.
  const { height, riseX, riseY } = plane;
  const up = (height < eyeHeight ? 1 : -1) / Math.sqrt(1 + riseX * riseX + riseY * riseY);
  for (let x = 0; x < width; x++) {
    if (coverage[x] < 0.5) continue;
    const level = intersectDeck(plane, eyeHeight, aside[x], ahead[x], rise[x]);
    if (level === Infinity || level > BEHIND * met[x]) continue;
    const i = first + x;
    out.reach[i] = Math.min(level, FARTHEST_GROUND / ahead[x]);
    out.normalX[i] = -up * riseX;
    out.normalY[i] = -up * riseY;
    out.normalZ[i] = up;
    out.unknownFacing[i] = 0;
    out.sheen[i] = sheen;
    out.alpha[i] = roughness * roughness;
    if (crease > 0) rippleNormal(out, i, crease * foldRight[x], crease * foldUp[x]);
  }
}
