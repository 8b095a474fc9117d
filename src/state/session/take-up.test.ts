import { RANGES } from '@/core/fields/ranges';
import { describe, expect, it } from 'vitest';
import { runCommand } from '@/core/scene/command';
import { setDesk } from '@/core/scene/commands';
import type { LogEntry } from '@/core/scene/history';
import { newScene } from '@/core/scene/new-scene';
import type { OpenScene } from '@/core/scene/opened-scene';
import { SCENE_VERSION, type Scene } from '@/core/scene/schema';
import { LostWorkError, takeUp } from './take-up';

const SCENE = newScene('Test', { asset: '0'.repeat(64), width: 100, height: 100 });

/** Entries that dim a scene step by step, and the scene after each. */
function dimmed(from: Scene, levels: number[]) {
  let scene = from;
  return levels.map((ambient) => {
    const done = runCommand(scene, setDesk('Ambient', { ambient }));
    scene = done.scene;
    const entry: LogEntry = { id: `${from.desk.master} ${ambient}`, kind: 'do', ...done.change };
    return { entry, scene };
  });
}

const opened = (scene: Scene, log: LogEntry[] = [], revision = log.length): OpenScene => ({
  ...{ id: 's', scene, revision, log },
});

const STEPS = dimmed(SCENE, [-1, -2, -3]);
const ENTRIES = STEPS.map(({ entry }) => entry);
const LAST = STEPS[2].scene;
const outbox = { version: SCENE_VERSION, base: 0, entries: ENTRIES, scene: LAST };

describe('takeUp', () => {
  it('goes on where the earlier window was, leaving out what was saved', () => {
    expect(takeUp(opened(SCENE), outbox)).toEqual({ base: 0, entries: ENTRIES, scene: LAST });
    const saved = opened(STEPS[0].scene, ENTRIES.slice(0, 1));
    expect(takeUp(saved, outbox)).toEqual({ base: 1, entries: ENTRIES.slice(1), scene: LAST });
    expect(takeUp(opened(LAST, ENTRIES), outbox)).toBeUndefined();
  });

  it('needs no kept document where the log reaches', () => {
    expect(takeUp(opened(SCENE), { ...outbox, scene: undefined })?.scene).toEqual(LAST);
    const [theirs] = dimmed(SCENE, [2]);
    const changed = opened(theirs.scene, [{ ...theirs.entry, id: 'theirs' }]);
    // Changed elsewhere: what is here is still what was here, and a person will choose.
    expect(takeUp(changed, { ...outbox, scene: undefined })).toMatchObject({ base: 0, scene: LAST });
  });

  it('runs no entry of another version: what the document became is brought up to date', () => {
    const old = { ...outbox, version: 7, scene: { ...LAST, version: 7 } };
    const taken = takeUp(opened(SCENE), old)!;
    expect(taken.scene).toEqual({
      ...LAST,
      plan: { ...LAST.plan, mirrors: 0 },
      night: { ...LAST.night, meter: 0 },
      sky: { ...LAST.sky, from: 'plate' },
      desk: { ...LAST.desk, spikes: RANGES.level.min, veil: RANGES.level.min },
    });
    expect(taken.entries).toHaveLength(1);
    expect(taken.entries[0].label).toBe('Changes from before Sundew was updated');
    expect(takeUp(opened(SCENE), { ...outbox, entries: taken.entries })?.scene).toEqual(taken.scene);
  });

  it('says of work that fits nothing any more that it is lost', () => {
    const broken = { ...LAST, fixtures: 'x' } as unknown as Scene;
    const old = { ...outbox, version: 7 };
    for (const scene of [broken, undefined])
      expect(() => takeUp(opened(SCENE), { ...old, scene })).toThrow(LostWorkError);
    const nowhere: LogEntry = { ...ENTRIES[0], patches: [{ op: 'replace', path: ['a', 'b'], value: 1 }] };
    expect(() => takeUp(opened(SCENE), { ...outbox, entries: [nowhere], scene: undefined })).toThrow(
      LostWorkError,
    );
  });
});
