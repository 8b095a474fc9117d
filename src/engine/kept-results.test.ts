import { expect, it } from 'vitest';
import { setPlan } from '@/core/scene/commands';
import { after, largestDifference, MEBIBYTE, SCENE, show, spyRenderer } from '../../test/spy-renderer';
import type { KeptResult, KeptResults } from './kept-results';

/** Results in memory, and what was asked for and kept. */
function inMemory() {
  const kept = new Map<string, KeptResult>();
  const found: string[] = [];
  const results: KeptResults = {
    find(key) {
      if (kept.has(key)) found.push(key.split(' ')[0]);
      return Promise.resolve(kept.get(key));
    },
    keep: (key, result) => void kept.set(key, structuredClone(result)),
  };
  return { kept, found, results };
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
