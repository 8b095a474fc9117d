import { kelvinGel } from '@/core/fixture/kelvin-gel';
import { srgb } from '@/core/color/srgb';
import type { Region } from '@/core/plane/region';
import type { CubeLut } from '@/core/grade/cube-lut';
import type { FixtureOf, FixtureValues } from '@/core/fixture/fixture-schema';
import type { KindName } from '@/core/fixture/kinds';
import { RANGES } from '@/core/fields/ranges';
import { makeFixture } from '@/core/fixture/make-fixture';
import { newScene, plainCircuit } from '@/core/scene/new-scene';
import type { Circuit, Fixture, Scene } from '@/core/scene/schema';
import type { RenderAssets } from '@/engine/render-assets';
import type { Size } from '@/engine/sizes';
import { CHART } from './placed';

/** A plate of 240 x 160: sky, a reddish front down to the horizon, paving, all with some grain. For tests. */
export const STREET: Size = { width: 240, height: 160 };

/** The street's sRGB codes in a region, at any size. */
export function streetCodes(region: Region): Uint16Array {
  const codes = new Uint16Array(3 * region.width * region.height);
  for (let i = 0; i < region.width * region.height; i++) {
    const [x, y] = [region.left + (i % region.width), region.top + Math.floor(i / region.width)];
    const v = y / region.fullHeight;
    const base = v < 0.3 ? [40000, 48000, 60000] : v < 0.58 ? [42000, 26000, 22000] : [38000, 37500, 36500];
    const grain = v < 0.3 ? 0 : 500 * (((x * 7 + y * 13) % 7) - 3);
    base.forEach((code, c) => (codes[3 * i + c] = code + grain));
  }
  return codes;
}

/** A lamp over the street. */
export function streetLamp<Name extends KindName = 'globe'>(
  id: string,
  u: number,
  more: Omit<FixtureValues, 'kind'> & { kind?: Name } = {},
): FixtureOf<Name> {
  return makeFixture((more.kind ?? 'globe') as Name, {
    id,
    name: id,
    circuit: 'street',
    at: { u, v: 0.35 },
    foot: { u, v: 0.75 },
    aim: { u, v: 0.75 },
    path: [],
    size: 0.012,
    gel: kelvinGel(2850),
    lumens: 3000,
    ...{ heart: 0.6, halo: 1, shown: 0, spill: 0 },
    ...{ bars: 0, sag: 0, count: 0 },
    ...more,
  });
}

/** A circuit with everything at its middle. */
export const testCircuit = (id: string, more: Partial<Circuit> = {}): Circuit => ({
  ...plainCircuit(id, id),
  ...more,
});

/** A scene on the street with some lamps on one circuit. */
export function streetScene(fixtures: Fixture[]): Scene {
  const street = newScene('Street', { asset: '5'.repeat(64), ...STREET });
  return {
    ...street,
    // Seen without a lens.
    desk: { ...street.desk, spikes: RANGES.level.min, veil: RANGES.level.min },
    fixtures,
    circuits: fixtures.length > 0 ? [testCircuit('street')] : [],
  };
}

/** Left half covered: what the street's edge brush found. */
export const STREET_BRUSHED = {
  width: 60,
  height: 40,
  data: Uint8Array.from({ length: 2400 }, (_, i) => (i % 60 < 30 ? 255 : 0)),
};

/** The street's codes as a camera gives them that took in a share of its light. */
function exposedCodes(region: Region, share: number): Uint16Array {
  const codes = streetCodes(region);
  return share === 1 ? codes : codes.map((code) => 65535 * srgb.encode(share * srgb.decode(code / 65535)));
}

/** Tones of the chart that tests place, from above: white, grey and black, codes. */
export const CHART_TONES = [60000, 30000, 3000] as const;

/** The chart's codes in a region. */
function chartCodes(region: Region): Uint16Array {
  const codes = new Uint16Array(3 * region.width * region.height);
  for (let y = 0; y < region.height; y++) {
    const tone = CHART_TONES[Math.min(2, Math.floor((3 * (region.top + y)) / region.fullHeight))];
    codes.fill(tone, 3 * y * region.width, 3 * (y + 1) * region.width);
  }
  return codes;
}

/** The street as a renderer loads it, with one look-up table for every name, exposed by a share of its light. */
export function streetAssets(lut?: CubeLut, share = 1): RenderAssets {
  return {
    codes: (asset, region) =>
      Promise.resolve(asset === CHART ? chartCodes(region) : exposedCodes(region, share)),
    lut: () => (lut ? Promise.resolve(lut) : Promise.reject(new Error('no look-up table'))),
    coverage: () => Promise.resolve(STREET_BRUSHED),
  };
}
