import { expect, it } from 'vitest';
import type { LogEntry } from '@/core/scene/history';
import { newScene } from '@/core/scene/new-scene';
import { SCENE_VERSION } from '@/core/scene/schema';
import { createPlace, currentOutbox, findLeft, type Browser } from './outbox';

const SCENE = newScene('Test', { asset: '0'.repeat(64), width: 100, height: 100 });
const entry = (id: string): LogEntry => ({ id, kind: 'do', label: id, patches: [], inverse: [] });

/** A browser with so much room, whose windows come and go. */
function fakeBrowser(room = Infinity) {
  const kept = new Map<string, string>();
  const held = new Set<string>();
  const browser: Browser = {
    storage: {
      get length() {
        return kept.size;
      },
      key: (i) => [...kept.keys()][i] ?? null,
      getItem: (key) => kept.get(key) ?? null,
      removeItem: (key) => void kept.delete(key),
      setItem(key, value) {
        if (value.length > room) throw new DOMException('full', 'QuotaExceededError');
        kept.set(key, value);
      },
    },
    locks: {
      query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
      request: async (name: string, work: () => Promise<void>) => {
        held.add(name);
        await work();
        held.delete(name);
      },
    } as Browser['locks'],
  };
  return { browser, kept };
}

const idsOf = async (browser: Browser) =>
  (await findLeft('s', browser)).map(({ outbox }) => outbox?.entries.map(({ id }) => id));

it('keeps what two windows on one scene have not saved apart, and gives away only what a gone one left', async () => {
  const { browser } = fakeBrowser();
  const [one, two] = ['one', 'two'].map((window) => createPlace('s', window, browser));
  const leaveOne = one.enter();
  two.enter();
  one.write(currentOutbox(3, [entry('a')], SCENE));
  two.write(currentOutbox(3, [entry('b')], SCENE));
  createPlace('other', 'three', browser).write(currentOutbox(9, [entry('c')], SCENE));
  expect(await idsOf(browser)).toEqual([]);
  leaveOne();
  await Promise.resolve();
  expect(await idsOf(browser)).toEqual([['a']]);
  // The second window has saved all: what the first one left stays.
  two.write(currentOutbox(4, [], SCENE));
  const [left] = await findLeft('s', browser);
  expect(left.outbox).toMatchObject({ version: SCENE_VERSION, base: 3 });
  left.forget();
  expect(await idsOf(browser)).toEqual([]);
});

it('keeps the entries where there is no room for the document, and says when there is none for them', () => {
  const { browser, kept } = fakeBrowser(400);
  const place = createPlace('s', 'one', browser);
  expect(place.write(currentOutbox(0, [entry('a')], SCENE))).toBe(true);
  expect(JSON.parse([...kept.values()][0])).not.toHaveProperty('scene');
  expect(place.write(currentOutbox(0, [entry('x'.repeat(500))], SCENE))).toBe(false);
});

it.each(['{', '[]', 'null', '{"base":0,"entries":"x"}', '{"base":-1,"entries":[]}'])(
  'tells of %s, which it cannot read',
  async (text) => {
    const { browser, kept } = fakeBrowser();
    kept.set('sundew:outbox:s:gone', text);
    expect((await findLeft('s', browser)).map(({ outbox }) => outbox)).toEqual([undefined]);
  },
);

it('takes what was kept before versions were told for one that is not known', async () => {
  const { browser, kept } = fakeBrowser();
  kept.set('sundew:outbox:s', JSON.stringify({ base: 2, entries: [entry('a')], scene: SCENE }));
  expect((await findLeft('s', browser))[0].outbox).toMatchObject({ version: 0, base: 2 });
});
