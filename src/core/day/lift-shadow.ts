import { bilinearRow } from '../plane/bilinear-row';
import { createBoxBlur } from '../plane/box-blur';
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
}

/** Stops of lit ground that is not known. */
const UNKNOWN = 16;

/** How much brighter than the ground beside it a place may get, stops: its own grain; and how dark a place is that has it. */
const GRAIN = { over: 0.2, from: 0.5 } as const;

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
  const inside = coverage.map((c) => (c > WITHIN.inside ? 1 : 0));
  const outside = coverage.map((c, i) => (c < WITHIN.outside ? alike[i] : 0));
  const smooth = (data: Float32Array, by = blur) => {
    const result = new Float32Array(data.length);
    by(result, data);
    return result;
  };
  const [insideWeight, outsideWeight] = [smooth(inside), smooth(outside)];
  const told = insideWeight.map((weight, i) => weight * outsideWeight[i]);
  const toldAround = smooth(told, spread);
  const stops = CHANNELS.map((name) => plate[name].map((value) => Math.log2(BLACK + Math.max(0, value))));
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
  const middle = local[1].map((gain, i) => told[i] * gain);
  const around = smooth(middle, spread);
  for (let i = 0; i < told.length; i++) {
    const near = toldAround[i] > 1e-6 ? around[i] / toldAround[i] : sun;
    const share = sun > 0 ? Math.min(MORE, Math.max(0, near / sun)) : 0;
    CHANNELS.forEach((name, c) => (out[name][i] = Math.min(MOST, Math.max(0, share * (sun + hue[c])))));
    out.lit[i] = weightAround[i] > 1e-4 ? litAround[i] / weightAround[i] : UNKNOWN;
  }
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
  const rows = [gains.r, gains.g, gains.b, gains.lit].map((data) => ({
    data,
    row: new Float32Array(region.width),
  }));
  const [red, green, blue, lit] = rows.map(({ row }) => row);
  for (let y = 0, i = 0; y < region.height; y++) {
    for (const { row, data } of rows) bilinearRow(row, { width, height, data }, region, y);
    for (let x = 0; x < region.width; x++, i++) {
      // Most of a picture lies in no shadow.
      const share =
        coverage[i] === 0 ? 0 : lift * Math.min(1, RIM * coverage[i]) * shadeOf(plate.g[i], green[x], lit[x]);
      out.r[i] = share === 0 ? plate.r[i] : plate.r[i] * 2 ** (share * red[x]);
      out.g[i] = share === 0 ? plate.g[i] : plate.g[i] * 2 ** (share * green[x]);
      out.b[i] = share === 0 ? plate.b[i] : plate.b[i] * 2 ** (share * blue[x]);
    }
  }
}

/** Share of a gain that a place is lifted by, by its green: no farther than to what is lit, and its grain over that. */
function shadeOf(value: number, gain: number, lit: number): number {
  const dark = lit - Math.log2(BLACK + Math.max(0, value));
  if (dark <= 0 || gain <= 0) return 0;
  return Math.min(1, (dark + GRAIN.over * smoothStep(0, GRAIN.from, dark)) / gain);
}
