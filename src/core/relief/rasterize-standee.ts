import { glossFrame } from '../plan/gloss-frame';
import { rippleNormal } from './ripple';
import { tiltNormal } from './tilt-normal';
import { layBox, type ReadyBox } from './rasterize-box';
import { steepen } from '../plane/steepen';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';
import type { StandingRelief } from './relief-surfaces';

/** Tilts of a standee's roundness at the pixels of a row. */
export interface RoundRow {
  right: Float32Array;
  up: Float32Array;
}

/** A card faces the eye. */
const TO_THE_EYE = glossFrame({ turn: 0, lean: 0 });

/** Pixels of a row between which something covers any: the first, and the first beyond. */
export interface Span {
  from: number;
  to: number;
}

/** Where a coverage is any on a row; on most rows nowhere. */
export function coveredSpan({ first, width }: ReliefRow, coverage: Float32Array): Span {
  let [from, to] = [0, width];
  while (from < width && coverage[first + from] === 0) from++;
  while (to > from && coverage[first + to - 1] === 0) to--;
  return { from, to };
}

/**
 * Lays a row of a standee over what lies behind it. Each pixel is one or the other: between a person and a wall there is air, where a lamp may
 * hang, and halfway between a boat and water a mirror would face anywhere. But what is behind shines less where it is covered.
 *
 * @param box of one that is a box
 */
export function rasterizeStandee(
  out: Relief,
  row: ReliefRow,
  { from, to }: Span,
  standee: StandingRelief,
  round: RoundRow,
  box?: ReadyBox,
): void {
  const { first, aside, ahead, rise, met, foldRight, foldUp } = row;
  const { coverage, roundness, creased, sheen, roughness } = standee;
  const ownAlpha = roughness * roughness;
  for (let x = from; x < to; x++) {
    const i = first + x;
    if (coverage[i] === 0) continue;
    const share = steepen(coverage[i]);
    if (share < 0.5) {
      out.sheen[i] *= 1 - share;
      continue;
    }
    if (standee.isLand) out.land[i] = Math.max(out.land[i], coverage[i]);
    if (box) {
      layBox(out, i, [aside[x], ahead[x], rise[x]], box, met[x], roundness);
      if (creased > 0) rippleNormal(out, i, creased * foldRight[x], creased * foldUp[x]);
    } else layCard(out, i, x, row, standee, round);
    out.sheen[i] = sheen;
    out.alpha[i] = ownAlpha;
  }
}

/**
 * Lays one pixel of a card. It faces the eye, tilted as far as its form is known; the folds of a flat one are known as little as its turn.
 */
function layCard(
  out: Relief,
  i: number,
  x: number,
  { ahead, foldRight, foldUp }: ReliefRow,
  { ahead: stands, roundness, creased }: StandingRelief,
  round: RoundRow,
): void {
  const right = roundness * round.right[x] + creased * foldRight[x];
  const up = roundness * round.up[x] + creased * foldUp[x];
  out.reach[i] = stands / ahead[x];
  tiltNormal(out, i, TO_THE_EYE, right, up);
  out.unknownFacing[i] = 1 - roundness;
}
