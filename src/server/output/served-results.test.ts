import { readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { unpackResult, type KeptResult } from '@/engine/kept-results';
import { temporaryWorkspace } from '../../../test/workspace';
import { createServedResults } from './served-results';

const RESULT: KeptResult = {
  planes: { slope: Float32Array.of(1, 2.5), none: new Float32Array() },
  facts: { at: 'ü' },
};
let dataDir: string;
let remove: () => Promise<void>;
beforeEach(async () => {
  const made = await temporaryWorkspace();
  [dataDir, remove] = [made.space.dataDir, made.remove];
});
afterEach(() => remove());

const unpacked = async (taken: ReturnType<ReturnType<typeof createServedResults>['take']>) => {
  const packed = await taken;
  return packed && unpackResult(packed.slice().buffer);
};

it('hands out what is being made as soon as it is made, and nothing of what nobody makes', async () => {
  const results = createServedResults(dataDir, 'one');
  expect(await results.take('survey')).toBeUndefined();
  const finding = results.find('survey');
  const taken = unpacked(results.take('survey'));
  expect(await finding).toBeUndefined();
  results.keep('survey', RESULT);
  expect(await taken).toEqual(RESULT);
});

it('says at once that what was given up will not come, and does not wait for ever', async () => {
  const results = createServedResults(dataDir, 'one', 20);
  await results.find('given up');
  const taken = results.take('given up');
  results.forgo('given up');
  expect(await taken).toBeUndefined();
  await results.find('slow');
  expect(await results.take('slow')).toBeUndefined();
});

it('finds what it kept before for the same build alone, and nothing in a file that is cut short', async () => {
  createServedResults(dataDir, 'one').keep('tones', RESULT);
  const folder = join(dataDir, 'results');
  const again = createServedResults(dataDir, 'one');
  await vi.waitFor(async () => expect(await again.find('tones')).toEqual(RESULT));
  expect(await unpacked(again.take('tones'))).toEqual(RESULT);
  expect(await createServedResults(dataDir, 'two').take('tones')).toBeUndefined();
  const unnamed = createServedResults(dataDir, '');
  await unnamed.find('tones');
  unnamed.keep('tones', RESULT);
  expect(await unnamed.take('tones')).toBeUndefined();
  const [name] = await readdir(folder);
  await writeFile(join(folder, name), new Uint8Array(9));
  expect(await createServedResults(dataDir, 'one').find('tones')).toBeUndefined();
});
