import { expect, it } from 'vitest';
import { setPlan } from '@/core/scene/commands';
import { isAbort } from './aborted';
import { after, largestDifference, MEBIBYTE, SCENE, show, spyRenderer, WHOLE } from '../../test/spy-renderer';
import { packResult, unpackResult, type KeptResult, type KeptResults } from './kept-results';

/** Results in memory, and what was asked for, kept and given up. */
function inMemory() {
  const kept = new Map<string, KeptResult>();
  const found: string[] = [];
  const forgone: string[] = [];
  const results: KeptResults = {
    find(key) {
      if (kept.has(key)) found.push(key.split(' ')[0]);
      return Promise.resolve(kept.get(key));
    },
    keep: (key, result) => void kept.set(key, structuredClone(result)),
    forgo: (key) => void forgone.push(key.split(' ')[0]),
  };
  return { kept, found, forgone, results };
}

const rendererWith = (results: KeptResults) => spyRenderer(true, 64 * MEBIBYTE, undefined, 1, results);

it('lays what an earlier renderer kept, does none of it again, and shows the same to the byte', async () => {
  const { kept, found, results } = inMemory();
  const first = rendererWith(results);
  const seen = await show(first.renderer, SCENE);
  expect(first.tasks).toContain('survey');
  expect([...kept.keys()].some((key) => key.startsWith('survey'))).toBe(true);
  const second = rendererWith(results);
  expect(largestDifference(await show(second.renderer, SCENE), seen)).toBe(0);
  expect(found).toContain('survey');
  expect(second.tasks).not.toContain('survey');
  expect(second.tasks).toContain('lamps');
});

it('makes what another document stands on, whatever was kept', async () => {
  const { results } = inMemory();
  await show(rendererWith(results).renderer, SCENE);
  const moved = after(SCENE, setPlan('Horizon', { horizon: { left: 0.3, right: 0.31 } }));
  const warm = rendererWith(results);
  const frame = await show(warm.renderer, moved);
  expect(warm.tasks).toContain('survey');
  expect(largestDifference(frame, await show(spyRenderer().renderer, moved))).toBe(0);
});

it('says what it gives up', async () => {
  const { kept, forgone, results } = inMemory();
  const stop = new AbortController();
  const { renderer } = rendererWith({
    ...results,
    find(key) {
      stop.abort();
      return results.find(key);
    },
  });
  await expect(renderer.frame({ scene: SCENE, region: WHOLE }, stop.signal, () => {})).rejects.toSatisfy(
    isAbort,
  );
  expect(forgone).toContain('survey');
  expect(kept.size).toBe(0);
});

it('comes out of its packing as it went in, and not at all when it is cut', () => {
  const result = {
    planes: { a: Float32Array.of(1, -2, 3e-9), b: new Float32Array(), c: Float32Array.of(7) },
    facts: { name: 'ü', list: [1, null] },
  };
  const { buffer } = packResult(result);
  expect(unpackResult(buffer)).toEqual(result);
  for (const bytes of [0, 3, 20, buffer.byteLength - 4])
    expect(unpackResult(buffer.slice(0, bytes))).toBeUndefined();
  expect(unpackResult(new TextEncoder().encode('no result at all').buffer)).toBeUndefined();
});
