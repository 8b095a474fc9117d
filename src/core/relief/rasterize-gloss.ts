import type { GlossFrame } from '../plan/gloss-frame';
import type { Finish } from '../plan/surfaces';
import { steepen } from '../plane/steepen';
import type { Span, RoundRow } from './rasterize-standee';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';
import { tiltNormal } from './tilt-normal';

/** A gloss as the relief has it. */
export interface GlossRelief extends Finish {
  frame: GlossFrame;
  roundness: number;
  /** Of the region. */
  coverage: Float32Array;
}

/** Turns what a gloss covers of a row to where it faces, as far off as it is, and makes it shine. */
export function rasterizeGloss(
  out: Relief,
  { first }: ReliefRow,
  { from, to }: Span,
  { coverage, frame, roundness, sheen, roughness }: GlossRelief,
  round: RoundRow,
): void {
  for (let x = from; x < to; x++) {
    const i = first + x;
    const share = steepen(coverage[i]);
    if (share < 0.5) continue;
    tiltNormal(out, i, frame, roundness * round.right[x], roundness * round.up[x]);
    out.unknownFacing[i] = 0;
    out.sheen[i] += share * (sheen - out.sheen[i]);
    out.alpha[i] = roughness * roughness;
  }
}
