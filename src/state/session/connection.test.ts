import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { createStore } from 'zustand/vanilla';
import { noteAnswer, onReturn, watchConnection, type Connection } from './connection';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

it('notices by itself that the server is gone, and when it is back', async () => {
  const connection: Connection = createStore(() => ({ isDown: false }));
  let isThere = true;
  const returns = vi.fn();
  const ask = vi.fn(() => {
    noteAnswer(isThere, connection);
    return isThere ? Promise.resolve() : Promise.reject(new Error('gone'));
  });
  const ends = [watchConnection(ask, connection), onReturn(returns, connection)];
  await vi.advanceTimersByTimeAsync(5000);
  expect(connection.getState().isDown).toBe(false);
  isThere = false;
  await vi.advanceTimersByTimeAsync(5000);
  expect(connection.getState().isDown).toBe(true);
  const asked = ask.mock.calls.length;
  await vi.advanceTimersByTimeAsync(3000);
  expect(ask.mock.calls.length).toBeGreaterThanOrEqual(asked + 2);
  expect(returns).not.toHaveBeenCalled();
  isThere = true;
  await vi.advanceTimersByTimeAsync(1000);
  expect(connection.getState().isDown).toBe(false);
  expect(returns).toHaveBeenCalledTimes(1);
  ends.forEach((end) => end());
  const before = ask.mock.calls.length;
  await vi.advanceTimersByTimeAsync(60_000);
  expect(ask.mock.calls.length).toBe(before);
});
