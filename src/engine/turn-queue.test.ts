import { expect, it } from 'vitest';
import { createTurnQueue } from './turn-queue';

it('does one piece of work at a time, also after one that failed', async () => {
  const takeTurn = createTurnQueue();
  let running = 0;
  const work = async () => {
    expect(++running).toBe(1);
    await Promise.resolve();
    running--;
  };
  const failing = takeTurn('soon', () => Promise.reject(new Error('no')));
  const others = [takeTurn('soon', work), takeTurn('later', work), takeTurn('soon', work)];
  await expect(failing).rejects.toThrow('no');
  await Promise.all(others);
});
