import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { packResult } from '@/engine/kept-results';
import { createKeptResults } from './kept-results';

/** The browser's store of files, in memory. */
function fakeCaches() {
  const stores = new Map<string, Map<string, Response>>();
  const open = (name: string) => {
    const files = stores.get(name) ?? new Map<string, Response>();
    stores.set(name, files);
    return Promise.resolve({
      match: (at: string) => Promise.resolve(files.get(at)?.clone()),
      delete: (at: string) => Promise.resolve(files.delete(at)),
      put: (at: string, file: Response) => Promise.resolve(void files.set(at, file)),
      keys: () => Promise.resolve([...files.keys()]),
    });
  };
  const caches = {
    open,
    keys: () => Promise.resolve([...stores.keys()]),
    delete: (name: string) => Promise.resolve(stores.delete(name)),
  };
  return { stores, caches };
}

let fake: ReturnType<typeof fakeCaches>;
beforeEach(() => vi.stubGlobal('caches', (fake = fakeCaches()).caches));
afterEach(() => vi.unstubAllGlobals());

const nowhere = () => Promise.resolve(undefined);
const planes = {
  slope: Float32Array.of(0.1, -2, 3e-9),
  offset: new Float32Array(),
  median: Float32Array.of(7),
};
const filesKept = () => [...fake.stores.values()].reduce((sum, { size }) => sum + size, 0);

it('gives back what it kept, to the bit, by keys of any signs', async () => {
  const results = createKeptResults(nowhere);
  const key = 'sky tones 3#ü "/ ?';
  results.keep(key, { planes, facts: { at: [1, 'ü'] } });
  await vi.waitFor(() => expect(filesKept()).toBe(1));
  expect(await results.find(key)).toEqual({ planes, facts: { at: [1, 'ü'] } });
  expect(await results.find('another')).toBeUndefined();
});

it('keeps the newest, and none of another build', async () => {
  await fake.caches.open('results of yesterday');
  const results = createKeptResults(nowhere);
  for (let i = 0; i < 60; i++) results.keep(String(i), { planes, facts: undefined });
  await vi.waitFor(async () => expect(await results.find('59')).toBeDefined());
  await vi.waitFor(() => expect(filesKept()).toBe(48));
  expect(await results.find('3')).toBeUndefined();
  expect(fake.stores.has('results of yesterday')).toBe(false);
});

it('finds nothing in a file that is cut short, and where nothing is kept', async () => {
  const results = createKeptResults(nowhere);
  results.keep('key', { planes, facts: undefined });
  await vi.waitFor(() => expect(filesKept()).toBe(1));
  const files = [...fake.stores.values()][0];
  const [[at, file]] = files;
  files.set(at, new Response((await file.arrayBuffer()).slice(0, -4)));
  expect(await results.find('key')).toBeUndefined();
  vi.stubGlobal('caches', undefined);
  const none = createKeptResults(nowhere);
  none.keep('key', { planes, facts: undefined });
  expect(await none.find('key')).toBeUndefined();
});

it('asks elsewhere while a scene opens, keeps what it gets, and goes on without what it does not', async () => {
  let time = 0;
  const asked: string[] = [];
  const packed = packResult({ planes, facts: 3 });
  const ask = (key: string) => {
    asked.push(key);
    return key === 'there'
      ? Promise.resolve(packed.buffer)
      : Promise.reject(new Error('The server is gone.'));
  };
  const results = createKeptResults(ask, () => time);
  expect(await results.find('gone')).toBeUndefined();
  expect(await results.find('there')).toEqual({ planes, facts: 3 });
  await vi.waitFor(() => expect(filesKept()).toBe(1));
  expect(await results.find('there')).toEqual({ planes, facts: 3 });
  time = 60_000;
  expect(await results.find('late')).toBeUndefined();
  expect(asked).toEqual(['gone', 'there']);
});
