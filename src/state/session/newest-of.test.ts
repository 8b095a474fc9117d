import { expect, it } from 'vitest';
import { createTurnQueue } from '@/engine/turn-queue';
import { newestOf } from './newest-of';

it('of many questions in a row only the newest is worked on', async () => {
  const takeTurn = createTurnQueue();
  const worked: number[] = [];
  const ask = newestOf((signal, n: number) =>
    takeTurn('soon', async () => {
      signal.throwIfAborted();
      worked.push(n);
      await Promise.resolve();
      return n;
    }),
  );
  // The queue is busy when the pointer moves.
  const busy = takeTurn('soon', () => new Promise<void>((resolve) => setTimeout(resolve)));
  const answers = Array.from({ length: 50 }, (_, n) => ask(n));
  const settled = await Promise.allSettled(answers);
  await busy;
  expect(worked).toEqual([49]);
  expect(settled.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
});
