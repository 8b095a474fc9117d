import { describe, expect, it, vi } from 'vitest';
import { isAbort } from '../aborted';
import { createPool, WorkerDiedError, type WorkerPort } from './pool';
import type { Task } from '../graph/task';

/** A worker whose tasks end when the test says so. */
function puppet() {
  const ends: (() => void)[] = [];
  const faults: ((error: Error) => void)[] = [];
  let die: (reason: Error) => void = () => {};
  let terminated = false;
  const port: WorkerPort = {
    perform: () =>
      new Promise<void>((resolve, reject) => {
        ends.push(resolve);
        faults.push(reject);
      }),
    died: new Promise((resolve) => {
      die = resolve;
    }),
    terminate: () => {
      terminated = true;
      return Promise.resolve();
    },
  };
  return { port, ends, faults, die: (reason: Error) => die(reason), isTerminated: () => terminated };
}

const TASK = { pieces: [{ stage: 'sum' }] } as Task;
const turn = () => new Promise((resolve) => setImmediate(resolve));

describe('createPool', () => {
  it('gives each worker one task at a time, in order', async () => {
    const worker = puppet();
    const pool = createPool(() => worker.port, 1);
    const done: number[] = [];
    const running = [1, 2, 3].map((n) => pool.run(TASK).then(() => done.push(n)));
    expect(worker.ends).toHaveLength(1);
    for (let i = 0; i < 3; i++) {
      worker.ends[i]();
      await turn();
    }
    await Promise.all(running);
    expect(done).toEqual([1, 2, 3]);
  });

  it('takes outdated tasks off the queue and lets the running one finish', async () => {
    const worker = puppet();
    const pool = createPool(() => worker.port, 1);
    const stop = new AbortController();
    const first = pool.run(TASK, stop.signal);
    const second = pool.run(TASK, stop.signal);
    stop.abort();
    worker.ends[0]();
    await first;
    await expect(second).rejects.toSatisfy(isAbort);
    expect(worker.ends).toHaveLength(1);
  });

  it('passes a fault on and goes on working', async () => {
    const worker = puppet();
    const pool = createPool(() => worker.port, 1);
    const bad = pool.run(TASK);
    const good = pool.run(TASK);
    worker.faults[0](new Error('no'));
    await expect(bad).rejects.toThrow('no');
    worker.ends[1]();
    await good;
  });

  it('replaces a worker that died after a pause, closes its port, and rejects what it held', async () => {
    vi.useFakeTimers();
    const workers = [puppet(), puppet()];
    let hired = 0;
    const pool = createPool(() => workers[hired++].port, 1);
    const lost = pool.run(TASK);
    const next = pool.run(TASK);
    workers[0].die(new Error('exit code 9'));
    await expect(lost).rejects.toThrow(WorkerDiedError);
    expect(workers[0].isTerminated()).toBe(true);
    expect(hired).toBe(1);
    await vi.advanceTimersByTimeAsync(50);
    expect(hired).toBe(2);
    workers[1].ends[0]();
    await next;
    vi.useRealTimers();
  });

  it('gives up when workers keep dying, says so, and tries again when it is asked again', async () => {
    vi.useFakeTimers();
    let hired = 0;
    let broken = true;
    const pool = createPool(
      () => {
        const worker = puppet();
        hired++;
        if (broken) worker.die(new Error('no memory'));
        else worker.port.perform = () => Promise.resolve();
        return worker.port;
      },
      2,
      { task: 1000, pause: 10, deaths: 4 },
    );
    const lost = [pool.run(TASK), pool.run(TASK), pool.run(TASK)].map((task) =>
      expect(task).rejects.toThrow(WorkerDiedError),
    );
    await vi.advanceTimersByTimeAsync(10_000);
    await Promise.all(lost);
    const before = hired;
    await vi.advanceTimersByTimeAsync(100_000);
    expect(hired).toBe(before);
    expect(hired).toBeLessThan(10);
    broken = false;
    await pool.run(TASK);
    vi.useRealTimers();
  });

  it('ends a worker that never comes to an end, and goes on with another', async () => {
    vi.useFakeTimers();
    const workers = [puppet(), puppet()];
    let hired = 0;
    const pool = createPool(() => workers[hired++].port, 1, { task: 1000, pause: 10, deaths: 4 });
    const stuck = expect(pool.run(TASK)).rejects.toThrow('longer than 1 s for "sum"');
    const next = pool.run(TASK);
    await vi.advanceTimersByTimeAsync(1010);
    await stuck;
    expect(workers[0].isTerminated()).toBe(true);
    workers[1].ends[0]();
    await next;
    vi.useRealTimers();
  });

  it('rejects everything when it is closed', async () => {
    const worker = puppet();
    const pool = createPool(() => worker.port, 1);
    const running = [pool.run(TASK), pool.run(TASK)];
    pool.close();
    for (const task of running) await expect(task).rejects.toSatisfy(isAbort);
    expect(worker.isTerminated()).toBe(true);
  });
});
