import { bilinearRow } from '../plane/bilinear-row';
import { createBoxBlur } from '../plane/box-blur';
import { createGuidedFilter } from '../plane/guided-filter';
import { dilate } from '../plane/dilate';
import type { RgbPlanes } from '../plane/plane';
import { smoothStep } from '../plane/smooth-step';
import type { Region } from '../plane/region';

/** How far around a shadow's edge its two sides are compared, fraction of the width. */
const AROUND = 0.03;

/** Luminance that counts as black, and the most that a shadow is lifted, stops. */
const BLACK = 1 / 1024;
const MOST = 4;

/** How many times the stops of the middle of all edges a place is lifted at most. */
const MORE = 1.35;

const CHANNELS = ['r', 'g', 'b'] as const;

/** Coverage from which a pixel is in the shadow, and up to which it is out of it. */
const WITHIN = { inside: 0.8, outside: 0.1 } as const;

/** What is known of the ground beside a shadow, on a small copy: how many stops brighter it is, and how bright. */
export interface ShadowGains extends RgbPlanes {
  /** Green of the lit ground around, stops; where there is none, far over all that is lit. */
  lit: Float32Array;
  /** How far a place lies at the shadow's rim, 0 to 1: the half-shadow goes on beyond what the shadow covers. */
  rim: Float32Array;
  /** Its broad tones as local lines of green in stops: what paving and its grain leave of them. */
  slope: Float32Array;
  offset: Float32Array;
}

/** Window of the broad tones, fraction of the width, and the variance up to which a difference is grain, stops. */
const BROAD = { radius: 0.01, epsilon: 0.12 } as const;

/** How broad the rim is, fraction of the width, and how softly it ends. */
const HALF_SHADOW = { reach: 0.014, soft: 0.006 } as const;

/** Share of what is around a place from which on lit ground there tells how bright it is: less may be a bin or a hedge. */
const FEW = 0.03;

/** Stops of lit ground that is not known. */
const UNKNOWN = 16;

/** How much brighter than the ground beside it a place may get, stops: its own grain; and from which share of the shade on it has it. */
const GRAIN = { over: 0.2, from: 0.6 } as const;

/** What the middle of all edges counts against those around a place: few or doubtful edges move nothing. */
const ALL_EDGES = 0.002;

/** A shadow's coverage counts this many times: a rim that it misses would stay dark, and what is lit is not lifted. */
const RIM = 2.5;

/**
 * How much brighter, in stops and per channel, the ground beside a shadow is than within, on a small copy of the plate:
 * means of both sides over a window, carried on into the shadow. On one plane the sun is one light of one colour: the middle of what all
 * edges tell, which a place near by may only differ from a little. The sun is warmer than the sky, so red is lifted most.
 *
 * @param out planes of the plate's size
 * @param coverage by the shadow
 * @param ground coverage by ground: other surfaces beside the shadow say nothing about it
 */
export function shadowGains(
  out: ShadowGains,
  plate: RgbPlanes,
  coverage: Float32Array,
  ground: Float32Array,
): void {
  const { width, height } = plate;
  const radius = Math.max(2, Math.round(AROUND * width));
  const blur = createBoxBlur(width, height, radius);
  const spread = createBoxBlur(width, height, 2 * radius);
  const onGround = mean(coverage.map((c, i) => (c > WITHIN.inside ? ground[i] : NaN)));
  const alike = ground.map((value) => Math.max(0.02, 1 - Math.abs(value - onGround)));
  findRim(out.rim, coverage, alike, width, height);
  const inside = coverage.map((c) => (c > WITHIN.inside ? 1 : 0));
  const outside = coverage.map((c, i) => (c < WITHIN.outside ? alike[i] : 0));
  const smooth = (data: Float32Array, by = blur) => {
    const result = new Float32Array(data.length);
    by(result, data);
    return result;
  };
  const [insideWeight, outsideWeight] = [smooth(inside), smooth(outside)];
  const told = insideWeight.map((weight, i) => weight * outsideWeight[i]);
  const stops = CHANNELS.map((name) => plate[name].map((value) => Math.log2(BLACK + Math.max(0, value))));
  const broadRadius = Math.max(1, Math.round(BROAD.radius * width));
  const broad = createGuidedFilter(stops[1], width, height, broadRadius, BROAD.epsilon)(stops[1]);
  out.slope.set(broad.slope);
  out.offset.set(broad.offset);
  const green = stops[1].map((value, i) => value * outside[i]);
  const [litAround, weightAround] = [smooth(green, spread), smooth(outside, spread)];
  const local = stops.map((channel) => {
    const within = smooth(channel.map((value, i) => value * inside[i]));
    const beside = smooth(channel.map((value, i) => value * outside[i]));
    return told.map((weight, i) =>
      weight > 0 ? beside[i] / outsideWeight[i] - within[i] / insideWeight[i] : 0,
    );
  });
  // The sun has one colour: how much more of red and blue it has is told by all edges together.
  const sun = weightedMedian(local[1], told);
  const hue = local.map((gain) =>
    weightedMedian(
      gain.map((value, i) => value - local[1][i]),
      told,
    ),
  );
  // What is darker beside a shadow than within is a thing, not the sun's light.
  const sunny = told.map((weight, i) => (local[1][i] > 0 ? weight : 0));
  const sunnyAround = smooth(sunny, spread);
  const middle = local[1].map((gain, i) => sunny[i] * gain);
  const around = smooth(middle, spread);
  for (let i = 0; i < told.length; i++) {
    const near = (around[i] + ALL_EDGES * sun) / (sunnyAround[i] + ALL_EDGES);
    const share = sun > 0 ? Math.min(MORE, Math.max(0, near / sun)) : 0;
    CHANNELS.forEach((name, c) => (out[name][i] = Math.min(MOST, Math.max(0, share * (sun + hue[c])))));
    out.lit[i] = weightAround[i] > FEW ? litAround[i] / weightAround[i] : UNKNOWN;
  }
}

/** How far each place lies in the shadow or at its rim, on surfaces like that on which it lies. */
function findRim(
  out: Float32Array,
  coverage: Float32Array,
  alike: Float32Array,
  width: number,
  height: number,
): void {
  out.set(coverage);
  dilate(out, width, height, HALF_SHADOW.reach * width);
  createBoxBlur(width, height, Math.max(1, Math.round(HALF_SHADOW.soft * width)))(out, out);
  for (let i = 0; i < out.length; i++) out[i] *= alike[i];
}

/** The value that half of the weight lies under; 0 without any. */
function weightedMedian(values: Float32Array, weights: Float32Array): number {
  const order = Array.from(values.keys())
    .filter((i) => weights[i] > 0)
    .sort((p, q) => values[p] - values[q]);
  const half = order.reduce((all, i) => all + weights[i], 0) / 2;
  let under = 0;
  for (const i of order) {
    under += weights[i];
    if (under >= half) return values[i];
  }
  return 0;
}

const sum = (data: Float32Array) => data.reduce((all, value) => all + value, 0);

function mean(data: Float32Array): number {
  const known = data.filter((value) => !Number.isNaN(value));
  return known.length > 0 ? sum(known) / known.length : 1;
}

/**
 * A plate with a shadow lifted out of it: where it covers, by the gains of a small copy. In the half-shadow at its edge, no place gets
 * brighter than the ground beside it. `out` may be the plate.
 *
 * @param lift 0 as it is, 1 as bright as beside it
 */
export function liftShadow(
  out: RgbPlanes,
  plate: RgbPlanes,
  coverage: Float32Array,
  gains: ShadowGains,
  region: Region,
  lift: number,
): void {
  const { width, height } = gains;
  const row = () => new Float32Array(region.width);
  const [rim, red, green, blue, lit, slope, offset] = [row(), row(), row(), row(), row(), row(), row()];
  const read = (to: Float32Array, data: Float32Array, y: number) =>
    bilinearRow(to, { width, height, data }, region, y);
  if (out !== plate) for (const name of CHANNELS) out[name].set(plate[name]);
  const isShade = (value: number) => value > 0;
  for (let y = 0; y < region.height; y++) {
    const first = y * region.width;
    read(rim, gains.rim, y);
    // Most of a picture lies in no shadow.
    if (!rim.some(isShade) && !coverage.subarray(first, first + region.width).some(isShade)) continue;
    CHANNELS.forEach((name, c) => read([red, green, blue][c], gains[name], y));
    read(lit, gains.lit, y);
    read(slope, gains.slope, y);
    read(offset, gains.offset, y);
    for (let x = 0, i = first; x < region.width; x++, i++) {
      const share = lift * Math.min(1, Math.max(RIM * coverage[i], rim[x]));
      if (share === 0) continue;
      const own = slope[x] * Math.log2(BLACK + Math.max(0, out.g[i])) + offset[x];
      const sun = sunOn(own, green[x], lit[x]);
      if (sun === 1) continue;
      out.r[i] *= brightening(red[x], sun) ** share;
      out.g[i] *= brightening(green[x], sun) ** share;
      out.b[i] *= brightening(blue[x], sun) ** share;
    }
  }
}

/** How much of the sun a place has already, 0 to 1, by its broad green, stops: in the half-shadow it is lifted no farther than to what is lit, and its grain over that. */
function sunOn(own: number, gain: number, lit: number): number {
  const dark = lit - own;
  if (dark <= 0 || gain <= 0) return 1;
  const least = 2 ** -gain;
  const level = 2 ** -(dark + GRAIN.over * smoothStep(GRAIN.from, 1, dark / gain));
  return Math.min(1, Math.max(0, (level - least) / (1 - least)));
}

/** How many times brighter a place is with all of the sun than with some of it, by the stops between none and all. */
function brightening(gain: number, sun: number): number {
  const least = 2 ** -gain;
  return 1 / (least + sun * (1 - least));
}
