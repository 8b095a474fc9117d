import { describe, expect, it } from 'vitest';
import { createDisplayCodes } from '../film/display-codes';
import { filmResponse } from '../film/film-response';
import { srgb } from '../color/srgb';
import { streetLamp, testCircuit } from '../../../test/street';
import { kelvinGel } from '../fixture/kelvin-gel';
import { ambientLight } from '../night/ambient-light';
import { newScene } from '../scene/new-scene';
import type { Circuit, Fixture, Scene } from '../scene/schema';
import { burns, layersOf } from './layers';
import { developLight } from '../film/develop-light';
import { mixPicture, type LayerPlanes } from './mix-picture';
import { faderGain } from '../fields/fader-gain';
import { pictureWeights, type Weights } from './weights';

const PLATE = { asset: 'a'.repeat(64), width: 300, height: 200 };

const circuit = testCircuit;
const fixture = (id: string, on: string, kelvin = 2850) =>
  streetLamp(id, 0.5, { circuit: on, gel: kelvinGel(kelvin) });

const scene = (circuits: Circuit[], fixtures: Fixture[], more: Partial<Scene> = {}): Scene => ({
  ...newScene('Test', PLATE),
  circuits,
  fixtures,
  ...more,
});

describe('layersOf', () => {
  it('joins fixtures of one circuit and gel, and parts the rest', () => {
    const layers = layersOf(
      scene(
        [circuit('a'), circuit('b')],
        [fixture('1', 'a'), fixture('2', 'b'), fixture('3', 'a'), fixture('4', 'a', 4000)],
      ),
    );
    expect(layers.map(({ fixtures }) => fixtures.map(({ id }) => id))).toEqual([['1', '3'], ['4'], ['2']]);
  });
});

describe('burns', () => {
  it('follows mute and solo', () => {
    const [a, b, c] = [circuit('a'), circuit('b', { solo: true }), circuit('c', { muted: true, solo: true })];
    const all = scene([a, b, c], []);
    expect([a, b, c].map((one) => burns(one, all))).toEqual([false, true, false]);
    expect(burns(a, scene([a], []))).toBe(true);
  });
});

describe('pictureWeights', () => {
  const weigh = (s: Scene) => pictureWeights(s, layersOf(s), 0.18);

  it('doubles with a stop and is off at the lowest', () => {
    expect(faderGain(1)).toBe(2);
    expect(faderGain(-10)).toBe(0);
  });

  it('dims a circuit by its stops in spill, air and source alike, and by the master', () => {
    const at = (level: number, master = 0) =>
      weigh(
        scene([circuit('a', { level })], [fixture('1', 'a')], {
          desk: { ambient: 0, sky: 0, moon: -10, stars: 0, haze: 0, spikes: 0, veil: 0, master },
        }),
      ).layers[0];
    for (const part of ['spill', 'air', 'source'] as const) {
      expect(at(-2)[part][0]).toBeCloseTo(at(0)[part][0] / 4, 9);
      expect(at(0, -1)[part][0]).toBeCloseTo(at(0)[part][0] / 2, 9);
    }
  });

  it('balances the lamp and its spill apart', () => {
    const even = weigh(scene([circuit('a')], [fixture('1', 'a')])).layers[0];
    const lamp = weigh(scene([circuit('a', { lampLevel: 1 })], [fixture('1', 'a')])).layers[0];
    expect(lamp.source[0]).toBeCloseTo(2 * even.source[0], 9);
    expect(lamp.spill[0]).toBeCloseTo(even.spill[0], 9);
  });

  it('makes a lamp brighter beside the ambient light as the evening goes on', () => {
    const base = scene([circuit('a')], [fixture('1', 'a')]);
    const ratio = (hour: number) => {
      const night = { ...base.night, hour };
      const { ambient, layers } = weigh({ ...base, night });
      return layers[0].spill[1] / (ambient * ambientLight(night).gains[1]);
    };
    expect(ratio(0.44)).toBeGreaterThan(10 * ratio(0));
    expect(ratio(1)).toBeGreaterThan(ratio(0.44));
  });
});

describe('mixPicture', () => {
  const codes = createDisplayCodes(255);
  const rgb = (value: number[]) => ({
    width: 1,
    height: 1,
    r: Float32Array.of(value[0]),
    g: Float32Array.of(value[1]),
    b: Float32Array.of(value[2]),
  });
  const dark: Weights = { ambient: 0, sky: 0, mist: { color: [1, 1, 1], perMetre: 0 }, layers: [] };
  const planes = (spill: number, air: number, source: number): LayerPlanes => ({
    spill: Float32Array.of(spill),
    air: Float32Array.of(air),
    source: Float32Array.of(source),
    sourceRows: { from: 0, to: 1 },
  });
  const mix = (plate: number[], layers: LayerPlanes[], weights: Weights, distance = 10, land = 1) => {
    const out = new Uint8ClampedArray(4);
    const sum = rgb([0, 0, 0]);
    const base = {
      plate: rgb(plate),
      night: rgb(plate),
      distance: Float32Array.of(distance),
      land: Float32Array.of(land),
    };
    mixPicture(sum, base, layers, weights, { from: 0, to: 1 });
    developLight(out, sum, codes);
    return [...out];
  };
  const developed = (light: [number, number, number]) =>
    filmResponse(light).map((display) => Math.round(255 * srgb.encode(display)));

  const NO_SHINE = { shine: [0, 0, 0] as [number, number, number] };

  it('multiplies the plate by what lands on it and adds what hangs in the air', () => {
    const layers = [planes(2, 0.5, 0.25)];
    const weights: Weights = {
      ...dark,
      ambient: 0.1,
      sky: 0.1,
      layers: [{ ...NO_SHINE, spill: [1, 0.5, 0.25], air: [0.1, 0, 0], source: [0, 0.2, 0] }],
    };
    const [r, g, b, alpha] = mix([0.4, 0.4, 0.4], layers, weights);
    const expected = developed([0.4 * 2.1 + 0.05, 0.4 * 1.1 + 0.05, 0.4 * 0.6]);
    [r, g, b].forEach((code, c) => expect(Math.abs(code - expected[c])).toBeLessThanOrEqual(1));
    expect(alpha).toBe(255);
  });

  it('dims the sky apart from the land', () => {
    const weights = { ...dark, ambient: 0.2, sky: 0.05 };
    const grey = (light: number) => developed([light, light, light]);
    for (const [land, gain] of [
      [1, 0.2],
      [0, 0.05],
      [0.5, 0.125],
    ]) {
      const [code] = mix([0.4, 0.4, 0.4], [], weights, 10, land);
      expect(Math.abs(code - grey(0.4 * gain)[0])).toBeLessThanOrEqual(1);
    }
  });

  it('shows no light on a black surface: spill is not glow', () => {
    const weights: Weights = {
      ...dark,
      layers: [{ ...NO_SHINE, spill: [9, 9, 9], air: [0, 0, 0], source: [0, 0, 0] }],
    };
    expect(mix([0, 0, 0], [planes(100, 0, 0)], weights).slice(0, 3)).toEqual([0, 0, 0]);
  });

  it('fades what lies far into the haze, and leaves the light in the air and of lamps alone', () => {
    const weights: Weights = {
      ambient: 1,
      sky: 1,
      mist: { color: [0.02, 0.03, 0.05], perMetre: 0.01 },
      layers: [{ ...NO_SHINE, spill: [1, 1, 1], air: [0, 0, 0], source: [0.5, 0.5, 0.5] }],
    };
    const at = (distance: number) => mix([0.3, 0.3, 0.3], [planes(1, 0, 1)], weights, distance);
    const clear = Math.exp(-0.5);
    const through = (mist: number) => clear * 0.6 + (1 - clear) * mist + 0.5;
    const expected = developed([through(0.02), through(0.03), through(0.05)]);
    at(50)
      .slice(0, 3)
      .forEach((code, c) => expect(Math.abs(code - expected[c])).toBeLessThanOrEqual(1));
    expect(at(1e6).slice(0, 3)).toEqual(mix([0.9, 0, 0], [planes(1, 0, 1)], weights, 1e6).slice(0, 3));
  });
});
