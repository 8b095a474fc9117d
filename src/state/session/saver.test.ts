import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LogEntry } from '@/core/scene/history';
import { newScene } from '@/core/scene/new-scene';
import { ApiError } from './api';
import type { Outbox } from './outbox';
import { createSaver, type SaveState } from './saver';

const SCENE = newScene('Test', { asset: '0'.repeat(64), width: 100, height: 100 });
const entry = (id: string, value = ''): LogEntry => ({
  ...{ id, kind: 'do', label: id, inverse: [] },
  patches: value === '' ? [] : [{ op: 'replace', path: ['title'], value }],
});

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
    keep: (outbox) => kept.push(outbox) > 0,
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

  it('asks a server that fails three times, then says so and keeps all, until a person or a change asks again', async () => {
    let broken = true;
    const { saver, states, sent, kept } = setUp((base, entries) =>
      broken
        ? Promise.reject(new ApiError(500, 'fault', 'went wrong'))
        : Promise.resolve(base + entries.length),
    );
    saver.push(entry('a'), SCENE);
    const flushed = expect(saver.flush()).rejects.toThrow('went wrong');
    await vi.advanceTimersByTimeAsync(60_000);
    await flushed;
    expect(sent).toHaveLength(3);
    expect(states.at(-1)).toBe('failing');
    expect(kept.at(-1)!.entries.map(({ id }) => id)).toEqual(['a']);
    broken = false;
    saver.wake();
    await saver.flush();
    expect(states.at(-1)).toBe('saved');
    expect(kept.at(-1)!.entries).toEqual([]);
  });

  it('splits what one request cannot carry', async () => {
    const { saver, sent } = setUp((base, entries) => Promise.resolve(base + entries.length));
    const long = 'x'.repeat(400_000);
    const ids = ['a', 'b', 'c', 'd', 'e'];
    saver.resume({
      base: 3,
      entries: [...ids.map((id) => entry(id, long)), entry('f', 'x'.repeat(3e6)), entry('g')],
      scene: SCENE,
    });
    await saver.flush();
    expect(sent.map(({ ids }) => ids)).toEqual([['a', 'b'], ['c', 'd'], ['e'], ['f'], ['g']]);
    expect(sent.map(({ base }) => base)).toEqual([3, 5, 7, 8, 9]);
  });

  it('that is stopped is not armed again by a late answer, and says nothing more', async () => {
    let answer: (error: ApiError) => void = () => {};
    const { saver, sent, states } = setUp(() => new Promise((_, reject) => (answer = reject)));
    saver.push(entry('a'), SCENE);
    const before = states.length;
    saver.stop();
    answer(new ApiError(0, 'unreachable', 'gone'));
    await vi.advanceTimersByTimeAsync(60_000);
    expect(sent).toHaveLength(1);
    expect(states).toHaveLength(before);
  });

  it('says that the window must stay open when the browser has no room', async () => {
    const reasons: (string | undefined)[] = [];
    const saver = createSaver({
      revision: 0,
      send: () => Promise.reject(new ApiError(0, 'unreachable', 'gone')),
      keep: () => false,
      onState: (_, reason) => reasons.push(reason),
    });
    saver.push(entry('a'), SCENE);
    await vi.advanceTimersByTimeAsync(10);
    expect(reasons.at(-1)).toContain('leave this window open');
    saver.stop();
  });

  it('tells an update of the server from a change elsewhere', async () => {
    const { saver, states } = setUp(() => Promise.reject(new ApiError(409, 'outdated', 'updated')));
    saver.push(entry('a'), SCENE);
    await vi.advanceTimersByTimeAsync(10);
    expect(states.at(-1)).toBe('outdated');
  });
});
