import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { litLayerIds } from '../../../test/lit-layers';
import { streetLamp, streetScene, testCircuit } from '../../../test/street';
import { kelvinGel } from '../fixture/kelvin-gel';
import { cueOf } from '../scene/cues';
import {
  FIRST_SWITCHING,
  ownWay,
  readySwitching,
  switchedAt,
  switchingSchema,
  WAYS_ON,
  type Switching,
  type WayOn,
} from './switching';

const fixtures = [
  ...['1', '2', '3', '4', '5', '6', '7', '8'].map((id) => streetLamp(id, 0.1 * Number(id), { circuit: 'a' })),
  streetLamp('9', 0.9, { circuit: 'b' }),
  streetLamp('10', 0.95, { circuit: 'c' }),
];
const scene = {
  ...streetScene(fixtures),
  circuits: [
    testCircuit('a', { level: -1 }),
    testCircuit('b', { muted: true }),
    testCircuit('c', { warmth: 20 }),
  ],
};
const going = (way: WayOn, more: Partial<Switching> = {}): Switching => ({
  ...FIRST_SWITCHING,
  ways: [
    { circuit: 'a', way },
    { circuit: 'c', way },
  ],
  ...more,
});
const ways = Object.keys(WAYS_ON) as WayOn[];
const anyOf = fc.record({
  way: fc.constantFrom(...ways),
  seed: fc.nat(9999),
  seconds: fc.integer({ min: 1, max: 20 }),
});

describe('a switching-on', () => {
  it('begins dark and ends as the scene is, in every way', () => {
    fc.assert(
      fc.property(anyOf, ({ way, seed, seconds }) => {
        const ready = readySwitching(scene, going(way, { seed, seconds }));
        expect(litLayerIds(switchedAt(ready, 0))).toEqual([]);
        const end = switchedAt(ready, ready.frames - 1);
        const lit = end.circuits.filter(({ muted }) => !muted);
        expect([...new Set(lit.map(({ id }) => id.split('~')[0]))]).toEqual(['a', 'c']);
        for (const { id, level, warmth, lampLevel } of lit) {
          const own = scene.circuits.find((circuit) => circuit.id === id.split('~')[0])!;
          expect({ level, warmth, lampLevel }).toEqual({
            level: own.level,
            warmth: own.warmth,
            lampLevel: own.lampLevel,
          });
        }
      }),
    );
  });

  it('is never brighter on its way than at its end, and the same for the same seed', () => {
    fc.assert(
      fc.property(anyOf, ({ way, seed, seconds }) => {
        const [ready, again] = [1, 2].map(() => readySwitching(scene, going(way, { seed, seconds })));
        for (let k = 0; k < ready.frames; k++) {
          const { circuits } = switchedAt(ready, k);
          expect(circuits).toEqual(switchedAt(again, k).circuits);
          for (const { id, level } of circuits) {
            expect(level).toBeLessThanOrEqual(
              scene.circuits.find((own) => own.id === id.split('~')[0])!.level,
            );
          }
        }
      }),
      { numRuns: 20 },
    );
  });

  it('only ever rises where it fades up or warms up; a warming lamp is redder', () => {
    for (const way of ['fades', 'warms'] as const) {
      const ready = readySwitching(scene, going(way));
      let before = -Infinity;
      for (let k = 0; k < ready.frames; k++) {
        const { muted, level } = switchedAt(ready, k).circuits[0];
        expect(muted ? -Infinity : level).toBeGreaterThanOrEqual(before);
        before = muted ? -Infinity : level;
      }
    }
    const { circuits } = switchedAt(readySwitching(scene, going('warms')), 5);
    expect(circuits[0].warmth).toBeGreaterThan(scene.circuits[0].warmth + 10);
  });

  it('lights windows one by one, each once, by chance', () => {
    const ready = readySwitching(scene, going('oneByOne'));
    expect(ready.scene.fixtures.map(({ id }) => id)).toEqual(fixtures.map(({ id }) => id));
    const lit = Array.from({ length: ready.frames }, (_, k) => {
      const on = new Set(switchedAt(ready, k).circuits.flatMap(({ id, muted }) => (muted ? [] : [id])));
      return ready.scene.fixtures.filter(({ circuit }) => on.has(circuit)).map(({ id }) => id);
    });
    const counts = lit.map((ids) => ids.length);
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
    expect(new Set(counts).size).toBeGreaterThan(5);
    const other = readySwitching(scene, going('oneByOne', { seed: 7 }));
    expect(other.scene.fixtures.map(({ circuit }) => circuit)).not.toEqual(
      ready.scene.fixtures.map(({ circuit }) => circuit),
    );
  });

  it('flickers: it goes dark again before it burns', () => {
    const ready = readySwitching(scene, going('flickers', { fps: 60 }));
    const levels = Array.from({ length: ready.frames }, (_, k) => switchedAt(ready, k).circuits[0]).map(
      ({ muted, level }) => (muted ? -10 : level),
    );
    const falls = levels.filter((level, k) => k > 0 && level < levels[k - 1] - 1);
    expect(falls.length).toBeGreaterThanOrEqual(3);
  });
});

describe('a fade between cues', () => {
  const dim = { ...cueOf(scene, 'dim', 'Dim'), ambient: -2 };
  const low = { ...dim, circuits: dim.circuits.map((own) => ({ ...own, level: -6, muted: false })) };
  const cued = { ...scene, cues: [low, { ...cueOf(scene, 'late', 'Late'), master: -1 }] };

  it('goes from one to the other, or to the desk as it is, and back nowhere', () => {
    for (const [to, master, level] of [
      ['late', -1, -1],
      [undefined, scene.desk.master, -1],
    ] as const) {
      const ready = readySwitching(cued, { ...FIRST_SWITCHING, fade: { from: 'dim', to } });
      const at = (k: number) => switchedAt(ready, k);
      expect([at(0).desk.ambient, at(0).circuits[0].level]).toEqual([-2, -6]);
      const end = at(ready.frames - 1);
      expect([end.desk.ambient, end.desk.master, end.circuits[0].level]).toEqual([
        scene.desk.ambient,
        master,
        level,
      ]);
      const levels = Array.from({ length: ready.frames }, (_, k) => at(k).circuits[0].level);
      expect(levels).toEqual([...levels].sort((a, b) => a - b));
      expect(at(3).fixtures).toEqual(scene.fixtures);
    }
  });

  it('is none where the cue that it begins with is gone', () => {
    const ready = readySwitching(cued, { ...FIRST_SWITCHING, fade: { from: 'gone' } });
    expect(litLayerIds(switchedAt(ready, 0))).toEqual([]);
  });
});

it('circuits come on as most of their lamps do', () => {
  const lamp = (kelvin: number) => streetLamp('x', 0.5, { gel: kelvinGel(kelvin) });
  expect(ownWay([lamp(2000), lamp(2000), lamp(3000)])).toBe('warms');
  expect(ownWay([lamp(3000)])).toBe('fades');
  expect(ownWay([])).toBe('fades');
});

it('numbers out of range and circuits without a way are no switching-on', async () => {
  await expect(switchingSchema.validate(FIRST_SWITCHING)).resolves.toEqual(FIRST_SWITCHING);
  for (const wrong of [
    { seconds: 0 },
    { fps: 1000 },
    { long: 1e5 },
    { form: 'gif' },
    { ways: [{ circuit: 'a' }] },
  ]) {
    await expect(switchingSchema.validate({ ...FIRST_SWITCHING, ...wrong })).rejects.toThrow();
  }
});
