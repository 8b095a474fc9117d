import { afterEach, beforeEach, expect, it, vi } from 'vitest';
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

const planes = {
  slope: Float32Array.of(0.1, -2, 3e-9),
  offset: new Float32Array(),
  median: Float32Array.of(7),
};
const filesKept = () => [...fake.stores.values()].reduce((sum, { size }) => sum + size, 0);

it('gives back what it kept, to the bit, by keys of any signs', async () => {
  const results = createKeptResults();
  const key = 'sky tones 3#ü "/ ?';
  results.keep(key, { planes, facts: { at: [1, 'ü'] } });
  await vi.waitFor(() => expect(filesKept()).toBe(1));
  expect(await results.find(key)).toEqual({ planes, facts: { at: [1, 'ü'] } });
  expect(await results.find('another')).toBeUndefined();
});

it('keeps the newest, and none of another build', async () => {
  await fake.caches.open('results of yesterday');
  const results = createKeptResults();
  for (let i = 0; i < 60; i++) results.keep(String(i), { planes, facts: undefined });
  await vi.waitFor(async () => expect(await results.find('59')).toBeDefined());
  await vi.waitFor(() => expect(filesKept()).toBe(48));
  expect(await results.find('3')).toBeUndefined();
  expect(fake.stores.has('results of yesterday')).toBe(false);
});

it('finds nothing in a file that is cut short, and where nothing is kept', async () => {
  const results = createKeptResults();
  results.keep('key', { planes, facts: undefined });
  await vi.waitFor(() => expect(filesKept()).toBe(1));
  const files = [...fake.stores.values()][0];
  const [[at, file]] = files;
  files.set(at, new Response(new Float32Array(2), { headers: file.headers }));
  expect(await results.find('key')).toBeUndefined();
  vi.stubGlobal('caches', undefined);
  const none = createKeptResults();
  none.keep('key', { planes, facts: undefined });
  expect(await none.find('key')).toBeUndefined();
});
