import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LogEntry } from '@/core/scene/history';
import { newScene } from '@/core/scene/new-scene';
import { ApiError } from './api';
import type { Outbox } from './outbox';
import { createSaver, type SaveState } from './saver';

const SCENE = newScene('Test', { asset: '0'.repeat(64), width: 100, height: 100 });
const entry = (id: string): LogEntry => ({ id, kind: 'do', label: id, patches: [], inverse: [] });

function setUp(answer: (base: number, entries: LogEntry[]) => Promise<number>) {
  const states: SaveState[] = [];
  const kept: Outbox[] = [];
  const sent: { base: number; ids: string[] }[] = [];
  const saver = createSaver({
    revision: 3,
    send: (base, entries) => {
      sent.push({ base, ids: entries.map(({ id }) => id) });
      return answer(base, entries);
    },
    keep: (outbox) => kept.push(outbox),
    onState: (state) => states.push(state),
    retryAfter: 1000,
  });
  return { saver, states, kept, sent };
}

describe('createSaver', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('sends in order, one request at a time, each on the revision that the last one gave', async () => {
    const { saver, sent, kept, states } = setUp((base, entries) => Promise.resolve(base + entries.length));
    saver.push(entry('a'), SCENE);
    saver.push(entry('b'), SCENE);
    saver.push(entry('c'), SCENE);
    await saver.flush();
    expect(sent).toEqual([
      { base: 3, ids: ['a'] },
      { base: 4, ids: ['b', 'c'] },
    ]);
    expect(kept.at(-1)).toMatchObject({ base: 6, entries: [] });
    expect(states.at(-1)).toBe('saved');
  });

  it('keeps what the server did not answer for, and sends it again', async () => {
    let up = false;
    const { saver, states, kept } = setUp((base, entries) =>
      up ? Promise.resolve(base + entries.length) : Promise.reject(new ApiError(0, 'unreachable', 'gone')),
    );
    saver.push(entry('a'), SCENE);
    await vi.advanceTimersByTimeAsync(10);
    expect(states.at(-1)).toBe('waiting');
    expect(kept.at(-1)!.entries.map(({ id }) => id)).toEqual(['a']);
    up = true;
    await vi.advanceTimersByTimeAsync(1100);
    expect(states.at(-1)).toBe('saved');
  });

  it('waits for room on a full disk', async () => {
    const { saver, states } = setUp(() => Promise.reject(new ApiError(507, 'disk-full', 'full')));
    saver.push(entry('a'), SCENE);
    await vi.advanceTimersByTimeAsync(10);
    expect(states.at(-1)).toBe('waiting');
  });

  it('stops and asks when the scene was changed elsewhere', async () => {
    const { saver, states, sent } = setUp(() => Promise.reject(new ApiError(409, 'stale', 'changed')));
    saver.push(entry('a'), SCENE);
    await expect(saver.flush()).rejects.toThrow('changed');
    expect(states.at(-1)).toBe('stale');
    saver.push(entry('b'), SCENE);
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent).toHaveLength(1);
    await expect(saver.flush()).rejects.toThrow('changed');
  });

  it('takes up what an earlier window left', async () => {
    const { saver, sent } = setUp((base, entries) => Promise.resolve(base + entries.length));
    saver.resume({ base: 9, entries: [entry('x')], scene: SCENE });
    await saver.flush();
    expect(sent).toEqual([{ base: 9, ids: ['x'] }]);
  });
});
