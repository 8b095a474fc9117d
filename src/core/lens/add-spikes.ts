import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { GLINT_STRIDE } from './glint';
import { spikeSpread, WAVES, type SpikeLook, type SpikeSpread } from './spikes';

/** Narrowest a spike is drawn, pixels (sigma): a finer one would be dotted. */
const NARROWEST = 0.5;

/** How far across a spike is drawn, in sigmas. */
const ACROSS = 3;

/** Breadth of the heart, in thicknesses, and its light against all spikes' at a heart of 1. */
const HEART = { breadth: 5, light: 0.35 } as const;

/** Light of the picture under which nothing is drawn: a tenth of a display code in the dark. */
const UNSEEN = 2e-4;

/** Steps of a spike's table from its source to its end. */
const STEPS = 512;

/** How light falls across a spike, by the square of the distance from its middle; as far as it is drawn, and a little. */
const FALL_STEPS = 512;
const FALL = Float64Array.from({ length: FALL_STEPS + 8 }, (_, k) =>
  Math.exp((-0.5 * ACROSS * ACROSS * k) / FALL_STEPS),
);

/** One spike of a picture, prepared: all lengths in pixels, and tables over the distance. */
interface Drawn {
  reach: number;
  along: Float64Array;
  breadth: Float64Array;
}

/** A spread at a wave length, in pixels of a picture: farther out, and as much thinner. */
function drawnAt({ reach, along, breadth }: SpikeSpread, wave: number, width: number): Drawn {
  const at = (table: (distance: number) => number) =>
    Float64Array.from({ length: STEPS + 2 }, (_, k) => table((Math.min(k, STEPS) / STEPS) * reach));
  return {
    reach: reach * wave * width,
    along: at(along).map((share) => share / (wave * width)),
    breadth: at(breadth).map((sigma) => Math.max(NARROWEST, sigma * wave * width)),
  };
}

/** Prepares what adds spikes to regions of a picture of one size. */
export function createSpikes(look: SpikeLook, fullWidth: number) {
  const spread = spikeSpread(look);
  const waves = WAVES.map((wave) => drawnAt(spread, wave, fullWidth));
  const heart = Math.max(NARROWEST, HEART.breadth * look.thickness * fullWidth);
  const directions = Array.from({ length: look.number }, (_, k) => {
    const angle = (look.turn * Math.PI) / 180 + (2 * Math.PI * k) / look.number;
    return [Math.cos(angle), Math.sin(angle)] as const;
  });

  /**
   * Adds the spikes of sources to a region.
   *
   * @param out light of the picture, of the region
   * @param glints GLINT_STRIDE floats a source
   * @param share of their light that goes into spikes
   */
  return (out: RgbPlanes, glints: Float32Array, count: number, share: number, region: Region): void => {
    for (let k = 0; k < count; k++) {
      const from = GLINT_STRIDE * k;
      const x = glints[from] * region.fullWidth - 0.5;
      const y = glints[from + 1] * region.fullHeight - 0.5;
      CHANNELS.forEach((channel, c) => {
        // Shares are per pixel, light is per squared width.
        const light = share * glints[from + 2 + c] * fullWidth * fullWidth;
        if (light <= 0) return;
        const each = light / look.number;
        const seen = seenReach(waves[c], each);
        if (!touches(region, x, y, seen + ACROSS * waves[c].breadth[STEPS])) return;
        for (const [dx, dy] of directions) addSpike(out[channel], region, x, y, dx, dy, each, seen, waves[c]);
        if (look.heart > 0)
          addHeart(out[channel], region, x, y, look.heart * HEART.light * light, heart * WAVES[c]);
      });
    }
  };
}

const CHANNELS = ['r', 'g', 'b'] as const;

/** Whether anything within some pixels of a place of the picture lies in a region. */
const touches = ({ left, top, width, height }: Region, x: number, y: number, reach: number): boolean =>
  x + reach >= left && x - reach < left + width && y + reach >= top && y - reach < top + height;

/** How far along a spike of some light anything of it is seen, pixels. */
function seenReach({ reach, along, breadth }: Drawn, light: number): number {
  let [seen, unseen] = [0, STEPS];
  while (unseen - seen > 1) {
    const middle = (seen + unseen) >> 1;
    if (light * along[middle] > UNSEEN * breadth[middle]) seen = middle;
    else unseen = middle;
  }
  return (unseen / STEPS) * reach;
}

/**
 * Adds one spike: along its longer axis pixel after pixel, across it as far as it is broad there. Places are those of the whole picture,
 * so that every region of it finds the same.
 */
function addSpike(
  out: Float32Array,
  { width, height, left, top }: Region,
  x: number,
  y: number,
  dx: number,
  dy: number,
  light: number,
  seen: number,
  { along, breadth, reach }: Drawn,
): void {
  const isLevel = Math.abs(dx) >= Math.abs(dy);
  // Of the longer axis: where the source is, which way the spike goes on it and across, and what of it the region has.
  const [begin, side, ahead, aside] = isLevel ? [x, y, dx, dy] : [y, x, dy, dx];
  const [low, high, least, most] = isLevel
    ? [left, left + width - 1, top, top + height - 1]
    : [top, top + height - 1, left, left + width - 1];
  const [stepAlong, stepAcross] = isLevel ? [1, width] : [width, 1];
  const perStep = STEPS / reach;
  const end = begin + seen * ahead;
  const to = Math.min(high, Math.floor(Math.max(begin, end)));
  for (let p = Math.max(low, Math.ceil(Math.min(begin, end))); p <= to; p++) {
    const far = (p - begin) / ahead;
    const at = far * perStep;
    const step = Math.min(STEPS, at | 0);
    const part = at - step;
    const sigma = breadth[step] + part * (breadth[step + 1] - breadth[step]);
    const middle = side + far * aside;
    // Across the axis a spike is as much broader as it is aslant.
    const wide = (ACROSS * sigma) / Math.abs(ahead);
    const last = Math.min(most, Math.floor(middle + wide));
    const share = along[step] + part * (along[step + 1] - along[step]);
    const peak = (light * share) / (Math.sqrt(2 * Math.PI) * sigma);
    const falls = (FALL_STEPS * ahead * ahead) / (ACROSS * ACROSS * sigma * sigma);
    for (let q = Math.max(least, Math.ceil(middle - wide)); q <= last; q++) {
      const off = q - middle;
      const place = falls * off * off;
      const under = place | 0;
      const fall = FALL[under] + (place - under) * (FALL[under + 1] - FALL[under]);
      out[(p - low) * stepAlong + (q - least) * stepAcross] += peak * fall;
    }
  }
}

/** Adds the heart: a small round glow. */
function addHeart(
  out: Float32Array,
  { width, height, left, top }: Region,
  x: number,
  y: number,
  light: number,
  sigma: number,
): void {
  const peak = light / (2 * Math.PI * sigma * sigma);
  if (peak < UNSEEN) return;
  const reach = sigma * Math.sqrt(2 * Math.log(peak / UNSEEN) + 1);
  const falls = -0.5 / (sigma * sigma);
  const right = Math.min(left + width - 1, Math.floor(x + reach));
  const bottom = Math.min(top + height - 1, Math.floor(y + reach));
  for (let j = Math.max(top, Math.ceil(y - reach)); j <= bottom; j++) {
    for (let i = Math.max(left, Math.ceil(x - reach)); i <= right; i++) {
      out[(j - top) * width + i - left] += peak * Math.exp(falls * ((i - x) ** 2 + (j - y) ** 2));
    }
  }
}
