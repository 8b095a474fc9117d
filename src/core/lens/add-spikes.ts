import type { RgbPlanes } from '../plane/plane';
import type { Region } from '../plane/region';
import { GLINT_STRIDE, MOST_GLINTS } from './glint';
import { spikeSpread, WAVES, type SpikeLook, type SpikeSpread } from './spikes';

/** Narrowest a spike is drawn, pixels (sigma): a finer one would be dotted. */
const NARROWEST = 0.5;

/** How far across a spike is drawn, in sigmas. */
export const ACROSS = 3;

/** Breadth of the heart, in thicknesses, and its light against all spikes' at a heart of 1. */
const HEART = { breadth: 5, light: 0.35 } as const;

/** Light of the picture under which nothing is drawn: a tenth of a display code in the dark. */
const UNSEEN = 2e-4;

/** Steps of a spike's table from its source to its end. */
export const STEPS = 512;

/** How light falls across a spike, by the square of the distance from its middle; as far as it is drawn, and a little. */
const FALL_STEPS = 512;
const FALL = Float64Array.from({ length: FALL_STEPS + 8 }, (_, k) =>
  Math.exp((-0.5 * ACROSS * ACROSS * k) / FALL_STEPS),
);

/** The spikes of a picture in one channel, prepared: lengths are pixels. */
export interface SpikeTable {
  reach: number;
  /** Share of a spike's light per pixel along it, and how broad it is (sigma), at each step of the reach. */
  steps: Float32Array;
}

/** Floats of a spike: where it begins on the picture and which way it goes, pixels; its light, and how far along it any of that is seen. */
export const SPIKE_STRIDE = 6;

/** Adds spikes, SPIKE_STRIDE floats each, to a plane of a region. */
export type AddSpikes = (
  out: Float32Array,
  region: Region,
  spikes: Float32Array,
  count: number,
  table: SpikeTable,
) => void;

/** A spread at a wave length, in pixels of a picture: farther out, and as much thinner. */
function tableAt({ reach, along, breadth }: SpikeSpread, wave: number, width: number): SpikeTable {
  const steps = new Float32Array(2 * (STEPS + 2));
  for (let k = 0; k < STEPS + 2; k++) {
    const distance = (Math.min(k, STEPS) / STEPS) * reach;
    steps[2 * k] = along(distance) / (wave * width);
    steps[2 * k + 1] = Math.max(NARROWEST, breadth(distance) * wave * width);
  }
  return { reach: reach * wave * width, steps };
}

/** Prepares what adds spikes to regions of a picture of one size. */
export function createSpikes(look: SpikeLook, fullWidth: number) {
  const spread = spikeSpread(look);
  const tables = WAVES.map((wave) => tableAt(spread, wave, fullWidth));
  const heart = Math.max(NARROWEST, HEART.breadth * look.thickness * fullWidth);
  const directions = Array.from({ length: look.number }, (_, k) => {
    const angle = (look.turn * Math.PI) / 180 + (2 * Math.PI * k) / look.number;
    return [Math.cos(angle), Math.sin(angle)] as const;
  });
  const spikes = new Float32Array(SPIKE_STRIDE * look.number * MOST_GLINTS);

  /**
   * Adds the spikes of sources to a region.
   *
   * @param out light of the picture, of the region
   * @param glints GLINT_STRIDE floats a source
   * @param share of their light that goes into spikes
   * @param add what draws them
   */
  return (
    out: RgbPlanes,
    glints: Float32Array,
    count: number,
    share: number,
    region: Region,
    add: AddSpikes = addSpikes,
  ): void => {
    CHANNELS.forEach((channel, c) => {
      const table = tables[c];
      const broad = ACROSS * table.steps[2 * STEPS + 1];
      let found = 0;
      for (let k = 0; k < count; k++) {
        const from = GLINT_STRIDE * k;
        const x = glints[from] * region.fullWidth - 0.5;
        const y = glints[from + 1] * region.fullHeight - 0.5;
        // Shares are per pixel, light is per squared width.
        const light = share * glints[from + 2 + c] * fullWidth * fullWidth;
        const each = light / look.number;
        const seen = light > 0 ? seenReach(table, each) : 0;
        if (seen === 0 || !touches(region, x, y, seen + broad)) continue;
        for (const [dx, dy] of directions)
          if (crosses(region, y, seen * dy, broad))
            spikes.set([x, y, dx, dy, each, seen], SPIKE_STRIDE * found++);
        if (look.heart > 0)
          addHeart(out[channel], region, x, y, look.heart * HEART.light * light, heart * WAVES[c]);
      }
      add(out[channel], region, spikes, found, table);
    });
  };
}

const CHANNELS = ['r', 'g', 'b'] as const;

/** Whether anything within some pixels of a place of the picture lies in a region. */
const touches = ({ left, top, width, height }: Region, x: number, y: number, reach: number): boolean =>
  x + reach >= left && x - reach < left + width && y + reach >= top && y - reach < top + height;

/** Whether a spike that goes some pixels down, or up, comes into rows of a region. */
const crosses = ({ top, height }: Region, y: number, down: number, broad: number): boolean =>
  Math.max(y, y + down) + broad >= top && Math.min(y, y + down) - broad < top + height;

/** How far along a spike of some light anything of it is seen, pixels. */
function seenReach({ reach, steps }: SpikeTable, light: number): number {
  let [seen, unseen] = [0, STEPS];
  while (unseen - seen > 1) {
    const middle = (seen + unseen) >> 1;
    if (light * steps[2 * middle] > UNSEEN * steps[2 * middle + 1]) seen = middle;
    else unseen = middle;
  }
  return (unseen / STEPS) * reach;
}

/** Adds spikes one after another. */
const addSpikes: AddSpikes = (out, region, spikes, count, table) => {
  for (let k = 0; k < count; k++) addSpike(out, region, spikes.subarray(SPIKE_STRIDE * k), table);
};

/**
 * Adds one spike: along its longer axis pixel after pixel, across it as far as it is broad there. Places are those of the whole picture,
 * so that every region of it finds the same.
 */
function addSpike(
  out: Float32Array,
  { width, height, left, top }: Region,
  [x, y, dx, dy, light, seen]: Float32Array,
  { reach, steps }: SpikeTable,
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
    const entry = 2 * step;
    const share = steps[entry] + part * (steps[entry + 2] - steps[entry]);
    const sigma = steps[entry + 1] + part * (steps[entry + 3] - steps[entry + 1]);
    const middle = side + far * aside;
    // Across the axis a spike is as much broader as it is aslant.
    const wide = (ACROSS * sigma) / Math.abs(ahead);
    const last = Math.min(most, Math.floor(middle + wide));
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

/** Adds the heart: a small round glow, which is that along a row times that down a column. */
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
  const fall = (off: number) => Math.exp((-0.5 * off * off) / (sigma * sigma));
  const first = Math.max(left, Math.ceil(x - reach));
  const right = Math.min(left + width - 1, Math.floor(x + reach));
  const bottom = Math.min(top + height - 1, Math.floor(y + reach));
  const along = Float64Array.from({ length: Math.max(0, right + 1 - first) }, (_, i) => fall(first + i - x));
  for (let j = Math.max(top, Math.ceil(y - reach)); j <= bottom; j++) {
    const row = peak * fall(j - y);
    const at = (j - top) * width + first - left;
    for (let i = 0; i < along.length; i++) out[at + i] += row * along[i];
  }
}
