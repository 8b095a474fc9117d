import type { GlossFrame } from '../plan/gloss-frame';
import type { Finish } from '../plan/surfaces';
import { steepen } from '../plane/steepen';
import type { Span, RoundRow } from './rasterize-standee';
import type { Relief } from './relief-planes';
import type { ReliefRow } from './relief-row';

/** Least cosine between a gloss's own normal and that of a place of it, squared: at its rim it bulges no further. */
const LEAST = 0.04;

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
  const { normal, right, up } = frame;
  for (let x = from; x < to; x++) {
    const i = first + x;
    const share = steepen(coverage[i]);
    if (share < 0.5) continue;
    const aside = roundness * round.right[x];
    const rise = roundness * round.up[x];
    const tilt = aside * aside + rise * rise;
    const straight = Math.sqrt(Math.max(LEAST, 1 - tilt));
    const long = Math.sqrt(tilt + straight * straight);
    out.normalX[i] = (straight * normal[0] + aside * right[0] + rise * up[0]) / long;
    out.normalY[i] = (straight * normal[1] + aside * right[1] + rise * up[1]) / long;
    out.normalZ[i] = (straight * normal[2] + aside * right[2] + rise * up[2]) / long;
    out.unknownFacing[i] = 0;
    out.sheen[i] += share * (sheen - out.sheen[i]);
    out.alpha[i] = roughness * roughness;
  }
}
