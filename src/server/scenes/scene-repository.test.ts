import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { setDesk, setNight } from '@/core/scene/commands';
import { runCommand } from '@/core/scene/command';
import { flip, stacksOf, type LogEntry } from '@/core/scene/history';
import { SCENE_VERSION, type Scene } from '@/core/scene/schema';
import { revisions, scenes } from '@/db/schema';
import { temporaryWorkspace, begunScene } from '../../../test/workspace';
import { listMoments, momentScene } from './moment-repository';
import { deleteScene, listScenes, openScene, saveCopy, saveEntries } from './scene-repository';
import { openWorkspace, type Workspace } from '../assets/workspace';

let space: Workspace;
let remove: () => Promise<void>;
let id: string;
beforeAll(async () => ({ space, remove } = await temporaryWorkspace()));
afterAll(() => remove());
beforeEach(async () => {
  id = await begunScene(space);
});

const dim = (scene: Scene, ambient: number): LogEntry => ({
  id: randomUUID(),
  kind: 'do',
  ...runCommand(scene, setDesk('Ambient', { ambient })).change,
});

const save = (base: number, entries: LogEntry[], version = SCENE_VERSION) =>
  saveEntries(space, id, { version, base, entries });

const stale = expect.objectContaining({ status: 409, code: 'stale' }) as Error;

describe('saveEntries', () => {
  it('adds to the log and moves the document on, and a second opening of the disk sees both', () => {
    const { scene } = openScene(space, id);
    const first = dim(scene, -1);
    expect(save(0, [first])).toBe(1);
    const undo: LogEntry = { id: randomUUID(), kind: 'undo', ...flip(first) };
    expect(save(1, [undo])).toBe(2);
    const again = openScene(openWorkspace(space.dataDir), id);
    expect(again.scene).toEqual(scene);
    expect(again.revision).toBe(2);
    expect(stacksOf(again.log).undone).toHaveLength(1);
  });

  it('counts an entry once, however often it is sent', () => {
    const entry = dim(openScene(space, id).scene, -1);
    save(0, [entry]);
    expect(save(0, [entry])).toBe(1);
    const next = dim(openScene(space, id).scene, -2);
    expect(save(0, [entry, next])).toBe(2);
    expect(openScene(space, id).scene.desk.ambient).toBe(-2);
  });

  it('refuses a stale base, and loses neither side', () => {
    const { scene } = openScene(space, id);
    const [mine, theirs] = [dim(scene, -1), dim(scene, -3)];
    save(0, [theirs]);
    expect(() => save(0, [mine])).toThrow(stale);
    expect(openScene(space, id).scene.desk.ambient).toBe(-3);
    // Their answer was lost, and a third window has saved since: what they sent counts, and nothing is done twice.
    save(1, [dim(openScene(space, id).scene, -4)]);
    expect(save(0, [theirs])).toBe(1);
    expect(openScene(space, id)).toMatchObject({ revision: 2, scene: { desk: { ambient: -4 } } });
  });

  it('takes an entry that is there already only for the one right after the base', () => {
    const { scene } = openScene(space, id);
    const entries = [-1, -2, -3].map((level) => dim(scene, level));
    entries.forEach((entry, i) => save(i, [entry]));
    const fresh = dim(scene, -4);
    // A base one short, made up for by an entry known long ago.
    expect(() => save(2, [entries[0], fresh])).toThrow(stale);
    expect(() => save(2, [fresh, entries[2]])).toThrow(stale);
    expect(() => save(1, [entries[2], entries[1], fresh])).toThrow(stale);
    expect(save(2, [entries[2], fresh])).toBe(4);
  });

  it('takes all entries of a request or none', () => {
    const { scene } = openScene(space, id);
    const good = dim(scene, -1);
    const bad: LogEntry = {
      ...dim(scene, -2),
      patches: [{ op: 'replace', path: ['desk', 'ambient'], value: 99 }],
    };
    expect(() => save(0, [good, bad])).toThrow('desk.ambient');
    expect(openScene(space, id)).toMatchObject({ revision: 0, scene: { desk: { ambient: 0 } } });
  });

  it.each([
    ['a path that is not there', ['nowhere', 'at', 'all'], 1],
    ['another plate', ['plate', 'asset'], 'f'.repeat(64)],
    ['a field of nobody', ['extra'], 1],
    ['a prototype', ['__proto__', 'polluted'], 1],
    ['a constructor', ['constructor', 'prototype', 'polluted'], 1],
    ['a place far past the end of a list', ['fixtures', 4e9], {}],
    ['a place before the first of a list', ['fixtures', -1], {}],
    ['half a place', ['fixtures', 0.5], {}],
    ['the length of a list', ['fixtures', 'length'], 4294967295],
    ['a method of a list', ['fixtures', 'push'], 1],
  ])('refuses %s', (_name, path, value) => {
    const entry: LogEntry = {
      ...dim(openScene(space, id).scene, -1),
      patches: [{ op: 'replace', path: path, value }],
    };
    expect(() => save(0, [entry])).toThrow(expect.objectContaining({ status: 422 }) as Error);
    expect(openScene(space, id).revision).toBe(0);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });
});

describe('a scene of an older version', () => {
  /** Writes a scene back as version 7 had it, with an entry of that time in its log. */
  function age(): void {
    const { scene } = openScene(space, id);
    save(0, [dim(scene, -1)]);
    const { db } = space;
    db.update(revisions).set({ version: 7 }).where(eq(revisions.sceneId, id)).run();
    const document = { ...openScene(space, id).scene, version: 7 };
    db.update(scenes).set({ document }).where(eq(scenes.id, id)).run();
  }

  it('opens with its log cut, keeps how it was as a moment, and goes on from there', () => {
    age();
    const opened = openScene(space, id);
    expect(opened).toMatchObject({ revision: 1, log: [], scene: { version: SCENE_VERSION } });
    expect(opened.scene.desk.ambient).toBe(-1);
    expect(listMoments(space, id)).toEqual([]);
    expect(save(1, [dim(opened.scene, -2)])).toBe(2);
    const [moment] = listMoments(space, id);
    expect(moment.name).toBe('Before Sundew was updated');
    expect(momentScene(space, id, moment.id)).toMatchObject({
      version: SCENE_VERSION,
      desk: { ambient: -1 },
    });
    const again = openScene(space, id);
    expect(stacksOf(again.log).done).toHaveLength(1);
    expect(save(2, [dim(again.scene, -3)])).toBe(3);
    expect(listMoments(space, id)).toHaveLength(1);
  });

  it('runs no patch of another version', () => {
    const entry = dim(openScene(space, id).scene, -1);
    expect(() => save(0, [entry], SCENE_VERSION - 1)).toThrow(
      expect.objectContaining({ status: 409, code: 'outdated' }) as Error,
    );
    expect(openScene(space, id).revision).toBe(0);
  });
});

it('keeps no document larger than scenes may be', () => {
  const { scene } = openScene(space, id);
  const path = Array.from({ length: 12_000 }, (_, i) => (i % 3 < 2 ? 0.123456789012345 : 0.5));
  const stroke = {
    ...{ path, size: 0.01, soft: 0.5, flow: 0.5, strength: 0.5, erase: false, pressure: 'none' },
  };
  const passes = Array.from({ length: 40 }, (_, i) => ({
    ...{ id: `p${i}`, join: 'add', kind: 'paint' },
    strokes: Array.from({ length: 7 }, () => stroke),
  }));
  const matte = { id: 'm', name: 'Large', refine: 0, grow: 0, feather: 0, invert: false, passes };
  const mattes = Array.from({ length: 3 }, (_, i) => ({ ...matte, id: `m${i}` }));
  expect(() => saveCopy(space, id, { ...scene, mattes })).toThrow('one may have 16 MB');
});

it('keeps a copy beside a scene, and refuses one that is no scene', () => {
  const { scene } = openScene(space, id);
  const mine = runCommand(scene, setNight('Tint', { tint: 0.4 })).scene;
  const copy = openScene(space, saveCopy(space, id, mine));
  expect(copy.scene.night.tint).toBe(0.4);
  expect(copy.scene.title).toBe('Quay (copy)');
  expect(() => saveCopy(space, id, { format: 'other' })).toThrow('not a Sundew scene');
});

it('takes a scene away, its log with it, and says so afterwards', () => {
  save(0, [dim(openScene(space, id).scene, -1)]);
  deleteScene(space, id);
  expect(listScenes(space).some((scene) => scene.id === id)).toBe(false);
  expect(() => openScene(space, id)).toThrow(expect.objectContaining({ status: 404 }) as Error);
  expect(() => deleteScene(space, id)).toThrow(expect.objectContaining({ status: 404 }) as Error);
});
