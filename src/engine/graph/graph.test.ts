import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { wholeRegion } from '@/core/plane/region';
import { streetScene, streetAssets } from '../../../test/street';
import { createArena } from '../memory/arena';
import { createNodeStore } from '../memory/node-store';
import { createPool } from '../pool/pool';
import { createGraph } from './graph';
import { createMemo } from './memo';
import { createPerformer } from './performer';
import { spotOf, type Spot } from './spot';
import { stage } from './stage';
import type { AnyStage } from './stage-spec';
import { createTell } from './tell';

const NEVER = new AbortController().signal;
const SCENE = streetScene([]);

/** What stages did, in its order. */
const done: string[] = [];
beforeEach(() => {
  done.length = 0;
});

const numbers = stage({
  name: 'numbers',
  part: 'the photo',
  settings: ({ scene }) => scene.night.exposure,
  inputs: () => ({}),
  planes: (pixels) => ({ value: pixels }),
  pace: 'heavy',
  run(out, _, { prepared: settings }, { rows, cut }) {
    done.push(`numbers ${rows.from}`);
    cut(out.value).fill(settings);
  },
});

const doubled = stage({
  name: 'doubled',
  part: 'the night',
  settings: () => undefined,
  inputs: (at) => ({ all: [numbers(at), undefined], by: { name: numbers(at) } }),
  planes: (pixels) => ({ value: pixels, none: 0 }),
  pace: 'quick',
  passing: true,
  run(out, { all, by }, _, { cut }) {
    done.push('doubled');
    const [first, gap] = all;
    expect(gap).toBeUndefined();
    expect(out.none).toHaveLength(0);
    const sum = cut(first!.value).map((value, i) => value + cut(by.name.value)[i]);
    cut(out.value).set(sum);
  },
});

const failing = stage({
  name: 'failing',
  part: 'the mattes',
  settings: () => undefined,
  inputs: (at) => ({ light: doubled(at) }),
  planes: (pixels) => ({ value: pixels }),
  pace: 'quick',
  run() {
    throw new Error('broken');
  },
});

const STAGES: AnyStage[] = [numbers, doubled, failing].map(({ spec }) => spec);

function graphOf(mostBytes = 2 ** 22) {
  const arena = createArena(mostBytes);
  const perform = createPerformer(STAGES, arena.memory);
  const port = () => ({
    perform: (task: Parameters<typeof perform>[0]) => Promise.resolve().then(() => perform(task)),
    died: new Promise<Error>(() => {}),
    terminate: () => Promise.resolve(),
  });
  const store = createNodeStore(arena, 2 ** 20);
  const graph = createGraph({ arena, pool: createPool(port, 1), store, assets: streetAssets() });
  const [tell, memo] = [createTell(), createMemo()];
  const spot = (exposure: number, side = 64): Spot =>
    spotOf(
      { scene: { ...SCENE, night: { ...SCENE.night, exposure } }, region: wholeRegion(side, side) },
      tell,
      memo,
    );
  return { arena, store, graph, spot };
}

describe('stages in a graph', () => {
  it('are made once, by what they depend on, and those that pass are let go', async () => {
    const { arena, store, graph, spot } = graphOf();
    store.beginFrame();
    const see = (at: Spot) => graph.see(doubled(at), NEVER, ({ value }) => [...value.slice(0, 2)]);
    expect(await see(spot(-3))).toEqual([-6, -6]);
    const kept = arena.used();
    expect(kept).toBe(4 * 64 * 64);
    expect(await see(spot(-3))).toEqual([-6, -6]);
    expect(done.filter((what) => what.startsWith('numbers'))).toHaveLength(1);
    expect(done.filter((what) => what === 'doubled').length).toBeGreaterThan(2);
    expect(await see(spot(-4))).toEqual([-8, -8]);
    expect(arena.used()).toBe(2 * kept);
  });

  it('cut heavy work finely, and say whether they are ready', async () => {
    const { store, graph, spot } = graphOf();
    store.beginFrame();
    expect(graph.isReady(doubled(spot(1, 512)))).toBe(false);
    await graph.see(doubled(spot(1, 512)), NEVER, () => {});
    expect(done.filter((what) => what.startsWith('numbers'))).toHaveLength(4);
    expect(graph.isReady(doubled(spot(1, 512)))).toBe(true);
    expect(graph.isReady(doubled(spot(2, 512)))).toBe(false);
  });

  it('leave nothing behind when one fails, or there is no room', async () => {
    const { arena, store, graph, spot } = graphOf();
    store.beginFrame();
    await expect(graph.see(failing(spot(1)), NEVER, () => {})).rejects.toThrow('broken');
    expect(arena.used()).toBe(4 * 64 * 64);
    await expect(graph.see(numbers(spot(1, 2048)), NEVER, () => {})).rejects.toMatchObject({
      name: 'ArenaFullError',
      part: 'the photo',
    });
    expect(graph.underway()).toBeUndefined();
  });

  it('ask for the same result of one document once', () => {
    const { spot } = graphOf();
    const at = spot(1);
    expect(numbers(at)).toBe(numbers({ ...at }));
    expect(numbers(at)).not.toBe(numbers({ ...at, region: wholeRegion(8, 8) }));
    expect(numbers(at).key).toBe(numbers(spot(1)).key);
    expect(numbers(at).key).not.toBe(numbers(spot(2)).key);
  });
});

describe('createTell', () => {
  it('names values alike that hold the same, and apart that do not', () => {
    const value = fc.jsonValue({ maxDepth: 3 });
    fc.assert(
      fc.property(value, value, (a, b) => {
        const tell = createTell();
        expect(tell(structuredClone(a))).toBe(tell(a));
        const same = JSON.stringify(a) === JSON.stringify(b);
        if (same) expect(tell(a)).toBe(tell(b));
        else if (!Object.is(a, b) && JSON.stringify([a]) !== JSON.stringify([b])) {
          // Text and keys are quoted, so that no two values run into each other.
          expect(tell([a, 'x'])).not.toBe(tell([b, 'x']));
        }
      }),
    );
  });
});
