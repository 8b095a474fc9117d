import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { setDesk, setNight } from '@/core/scene/commands';
import { runCommand } from '@/core/scene/command';
import { flip, stacksOf, type LogEntry } from '@/core/scene/history';
import type { Scene } from '@/core/scene/schema';
import { temporaryWorkspace, begunScene } from '../../test/workspace';
import { deleteScene, listScenes, openScene, saveCopy, saveEntries } from './scene-repository';
import { openWorkspace, type Workspace } from './workspace';

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

describe('saveEntries', () => {
  it('adds to the log and moves the document on, and a second opening of the disk sees both', () => {
    const { scene } = openScene(space, id);
    const first = dim(scene, -1);
    expect(saveEntries(space, id, 0, [first])).toBe(1);
    const undo: LogEntry = { id: randomUUID(), kind: 'undo', ...flip(first) };
    expect(saveEntries(space, id, 1, [undo])).toBe(2);
    const again = openScene(openWorkspace(space.dataDir), id);
    expect(again.scene).toEqual(scene);
    expect(again.revision).toBe(2);
    expect(stacksOf(again.log).undone).toHaveLength(1);
  });

  it('counts an entry once, however often it is sent', () => {
    const entry = dim(openScene(space, id).scene, -1);
    saveEntries(space, id, 0, [entry]);
    expect(saveEntries(space, id, 0, [entry])).toBe(1);
    const next = dim(openScene(space, id).scene, -2);
    expect(saveEntries(space, id, 0, [entry, next])).toBe(2);
    expect(openScene(space, id).scene.desk.ambient).toBe(-2);
  });

  it('refuses a stale base, and loses neither side', () => {
    const { scene } = openScene(space, id);
    const [mine, theirs] = [dim(scene, -1), dim(scene, -3)];
    saveEntries(space, id, 0, [theirs]);
    expect(() => saveEntries(space, id, 0, [mine])).toThrow(
      expect.objectContaining({ status: 409 }) as Error,
    );
    expect(openScene(space, id).scene.desk.ambient).toBe(-3);
    const known = dim(openScene(space, id).scene, -4);
    saveEntries(space, id, 1, [known]);
    expect(() => saveEntries(space, id, 0, [theirs])).toThrow(
      expect.objectContaining({ status: 409 }) as Error,
    );
  });

  it('takes all entries of a request or none', () => {
    const { scene } = openScene(space, id);
    const good = dim(scene, -1);
    const bad: LogEntry = {
      ...dim(scene, -2),
      patches: [{ op: 'replace', path: ['desk', 'ambient'], value: 99 }],
    };
    expect(() => saveEntries(space, id, 0, [good, bad])).toThrow('desk.ambient');
    expect(openScene(space, id)).toMatchObject({ revision: 0, scene: { desk: { ambient: 0 } } });
  });

  it.each([
    ['a path that is not there', ['nowhere', 'at', 'all'], 1],
    ['another plate', ['plate', 'asset'], 'f'.repeat(64)],
    ['a field of nobody', ['extra'], 1],
    ['a prototype', ['__proto__', 'polluted'], 1],
  ])('refuses %s', (_name, path, value) => {
    const entry: LogEntry = {
      ...dim(openScene(space, id).scene, -1),
      patches: [{ op: 'replace', path: path, value }],
    };
    expect(() => saveEntries(space, id, 0, [entry])).toThrow(
      expect.objectContaining({ status: 422 }) as Error,
    );
    expect(openScene(space, id).revision).toBe(0);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });
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
  saveEntries(space, id, 0, [dim(openScene(space, id).scene, -1)]);
  deleteScene(space, id);
  expect(listScenes(space).some((scene) => scene.id === id)).toBe(false);
  expect(() => openScene(space, id)).toThrow(expect.objectContaining({ status: 404 }) as Error);
  expect(() => deleteScene(space, id)).toThrow(expect.objectContaining({ status: 404 }) as Error);
});
