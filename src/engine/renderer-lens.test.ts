import { describe, expect, it } from 'vitest';
import { setDesk } from '@/core/scene/commands';
import { setCircuit } from '@/core/scene/fixture-commands';
import { sayOfGlints, setGrain, setLens } from '@/core/scene/lens-commands';
import { RANGES } from '@/core/fields/ranges';
import type { Scene } from '@/core/scene/schema';
import { rowsOf, wholeRegion } from '@/core/plane/region';
import { glintsOf } from './readouts/glints';
import { builtScene } from '../../test/built-scene';
import {
  after,
  half,
  largestDifference,
  luminanceAt,
  NEVER,
  show,
  spyRenderer,
} from '../../test/spy-renderer';
import { streetLamp, streetScene } from '../../test/street';

const OFF = RANGES.level.min;
const CLEAR = streetScene([streetLamp('one', 0.5)]);
const SPIKED = after(
  after(CLEAR, setDesk('Spikes', { spikes: 2 })),
  setLens('Spikes', { from: 'hand', number: 2, turn: 0, reach: 0.3, thickness: 0.006 }),
);
/** On a spike of the lamp, and beside it. */
const [ON, BESIDE] = [
  { u: 0.62, v: 0.35 },
  { u: 0.62, v: 0.2 },
];

describe('the lens in the renderer', () => {
  it('draws spikes from lamps, on the fader of their circuit and on its own', async () => {
    const { renderer } = spyRenderer();
    const [clear, spiked] = [await show(renderer, CLEAR), await show(renderer, SPIKED)];
    expect(luminanceAt(spiked, ON.u, ON.v)).toBeGreaterThan(luminanceAt(clear, ON.u, ON.v) + 12);
    expect(luminanceAt(spiked, BESIDE.u, BESIDE.v)).toBe(luminanceAt(clear, BESIDE.u, BESIDE.v));
    const lamp = SPIKED.circuits[0].id;
    const dimmed = await show(renderer, after(SPIKED, setCircuit('Dim', lamp, { level: -3 })));
    expect(luminanceAt(dimmed, ON.u, ON.v)).toBeLessThan(luminanceAt(spiked, ON.u, ON.v) - 8);
    const less = await show(renderer, after(SPIKED, setDesk('Spikes', { spikes: -1 })));
    expect(luminanceAt(less, ON.u, ON.v)).toBeLessThan(luminanceAt(spiked, ON.u, ON.v) - 8);
  });

  it('gives none to a lamp that something hides, and half to one that is half hidden', async () => {
    const { renderer } = spyRenderer();
    const behind = (u: number) => ({
      ...SPIKED,
      mattes: [half],
      fixtures: [streetLamp('one', u, { behind: 'half' })],
    });
    const lightOf = async (u: number) => {
      const [glint] = await renderer.read(glintsOf(behind(u)), NEVER);
      return glint.g;
    };
    const [hidden, halfSeen, seen] = [await lightOf(0.3), await lightOf(0.5), await lightOf(0.7)];
    expect(hidden / seen).toBeLessThan(0.02);
    expect(halfSeen / seen).toBeGreaterThan(0.3);
    expect(halfSeen / seen).toBeLessThan(0.7);
  });

  it('says which sources there are, takes them away, and keeps to a matte', async () => {
    const { renderer } = spyRenderer();
    const two = { ...SPIKED, mattes: [half], fixtures: [streetLamp('a', 0.3), streetLamp('b', 0.7)] };
    const of = async (scene: Scene = two) =>
      // A bright star may be found beside them.
      (await renderer.read(glintsOf(scene), NEVER)).filter(({ from }) => from !== 'found');
    expect((await of()).map(({ from, u }) => [from, Math.round(10 * u)])).toEqual([
      ['fixture', 3],
      ['fixture', 7],
    ]);
    const one = after(two, sayOfGlints('Off', [{ id: 'p', at: { u: 0.3, v: 0.35 }, stops: OFF }]));
    expect(await of(one)).toHaveLength(1);
    const [inside, outside] = await of(after(two, setLens('Inside', { within: 'half' })));
    expect(inside.g).toBeGreaterThan(0);
    expect(outside.g).toBe(0);
    const added = after(two, sayOfGlints('Add', [{ id: 'q', at: { u: 0.5, v: 0.9 }, stops: 0 }]));
    expect((await of(added)).map(({ from }) => from)).toEqual(['fixture', 'fixture', 'said']);
  });

  it('lifts the dark around lamps by a veil, and takes it from them', async () => {
    const { renderer } = spyRenderer();
    const dark = after(CLEAR, setDesk('Ambient', { ambient: OFF }));
    const [clear, veiled] = [
      await show(renderer, dark),
      await show(renderer, after(dark, setDesk('Veil', { veil: 3 }))),
    ];
    for (const u of [0.56, 0.44])
      expect(luminanceAt(veiled, u, 0.25)).toBeGreaterThan(luminanceAt(clear, u, 0.25) + 2);
    expect(luminanceAt(veiled, 0.03, 0.03)).toBeLessThan(luminanceAt(clear, 0.03, 0.03) + 4);
    expect(luminanceAt(veiled, 0.5, 0.35)).toBeLessThanOrEqual(luminanceAt(clear, 0.5, 0.35));
  });

  it('is without a seam: every band of a picture is a part of the whole', async () => {
    const { renderer } = spyRenderer();
    const scene = builtScene();
    const whole = wholeRegion(200, 133);
    const all = await show(renderer, scene, whole);
    for (const [from, count] of [
      [0, 41],
      [57, 32],
      [100, 33],
    ]) {
      const band = await show(renderer, scene, rowsOf(whole, from, count));
      const part = all.subarray(4 * 200 * from, 4 * 200 * (from + count));
      expect(largestDifference(band, part)).toBeLessThanOrEqual(1);
    }
  });

  it('makes nothing anew before the sum for its own settings', async () => {
    const { renderer, tasks } = spyRenderer();
    await show(renderer, SPIKED);
    tasks.length = 0;
    await show(renderer, after(SPIKED, setLens('Turn', { turn: 30 })));
    await show(renderer, after(SPIKED, setDesk('Spikes', { spikes: 1 })));
    expect(new Set(tasks)).toEqual(new Set(['sum', 'glare', 'film']));
    await show(renderer, after(SPIKED, setGrain('Grain', { iso: 800 })));
    expect(new Set(tasks)).toEqual(new Set(['sum', 'glare', 'deviates', 'grain', 'film']));
  });

  it('holds 500 fixtures and a plate that is all white', async () => {
    const { renderer } = spyRenderer(true, undefined, undefined, 4);
    const many = Array.from({ length: 500 }, (_, k) =>
      streetLamp(`l${k}`, (k % 50) / 50, { at: { u: (k % 50) / 50, v: k / 500 } }),
    );
    const pixels = await show(renderer, { ...SPIKED, fixtures: many }, wholeRegion(60, 40));
    expect(pixels.every((value) => Number.isFinite(value))).toBe(true);
    const glints = await renderer.read(glintsOf({ ...SPIKED, fixtures: many }), NEVER);
    expect(glints.filter(({ from }) => from === 'fixture')).toHaveLength(500);
  });
});
