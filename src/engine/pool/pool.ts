import { abortError } from '../aborted';
import { taskName, type Task } from '../graph/task';

/** A worker as the pool sees it, whatever thread it runs on. */
export interface WorkerPort {
  perform: (task: Task) => Promise<void>;
  /** Settles when the worker has died by itself, with the reason. */
  died: Promise<Error>;
  /** Ends the worker and lets go of its port; settles once it touches no memory any more. */
  terminate: () => Promise<void>;
}

/** A worker stopped in the middle of its work. */
export class WorkerDiedError extends Error {
  override name = 'WorkerDiedError';
}

/** Workers that share one queue. */
export interface Pool {
  size: number;
  /** Runs a task on the next free worker. An abort takes a waiting task off the queue; a running one finishes. */
  run: (task: Task, signal?: AbortSignal) => Promise<void>;
  close: () => void;
}

interface Job {
  task: Task;
  signal?: AbortSignal;
  resolve: () => void;
  reject: (reason: Error) => void;
}

/** How patient a pool is. */
export interface Patience {
  /** Milliseconds that one task may take: far more than any needs. */
  task: number;
  /** Milliseconds before the first worker that died is replaced; twice as many before each next one. */
  pause: number;
  /** Workers that may die one after the other, none having done a task, before the pool gives up for now. */
  deaths: number;
}

const PATIENCE: Patience = { task: 120_000, pause: 50, deaths: 6 };

/**
 * Starts `size` workers. One that dies, or does not come to an end with its task, rejects the task that it held and is
 * replaced after a pause. When they keep dying all that waits is rejected; the next task tries once more.
 */
export function createPool(spawn: () => WorkerPort, size: number, patience: Patience = PATIENCE): Pool {
  const queue: Job[] = [];
  const idle: WorkerPort[] = [];
  const all = new Set<WorkerPort>();
  const holding = new Map<WorkerPort, { job: Job; limit: ReturnType<typeof setTimeout> }>();
  const pauses = new Set<ReturnType<typeof setTimeout>>();
  let deaths = 0;
  let closed = false;

  function hire(): void {
    if (closed) return;
    let port: WorkerPort;
    try {
      port = spawn();
    } catch (error) {
      return replace(error as Error);
    }
    all.add(port);
    idle.push(port);
    void port.died.then((reason) => dismiss(port, reason));
    next();
  }

  /** Lets a worker go that is of no use any more, and hires another. What it held is rejected once it has ended. */
  function dismiss(port: WorkerPort, reason: Error): void {
    if (!all.delete(port)) return;
    const at = idle.indexOf(port);
    if (at >= 0) idle.splice(at, 1);
    const held = holding.get(port);
    holding.delete(port);
    clearTimeout(held?.limit);
    void port.terminate().then(() => {
      held?.job.reject(new WorkerDiedError(`A render worker stopped: ${reason.message}`));
      if (!closed) replace(reason);
    });
  }

  function replace(reason: Error): void {
    if (++deaths >= patience.deaths) return giveUp(reason);
    const pause = setTimeout(
      () => {
        pauses.delete(pause);
        hire();
      },
      patience.pause * 2 ** (deaths - 1),
    );
    pauses.add(pause);
  }

  function giveUp(reason: Error): void {
    if (all.size > 0) return;
    for (const job of queue.splice(0))
      job.reject(new WorkerDiedError(`Render workers keep stopping: ${reason.message}. Reload the page.`));
  }

  function next(): void {
    while (queue.length > 0 && idle.length > 0) {
      const job = queue.shift()!;
      if (job.signal?.aborted) {
        job.reject(abortError());
        continue;
      }
      const port = idle.pop()!;
      const late = new Error(`it took longer than ${patience.task / 1000} s for "${taskName(job.task)}"`);
      holding.set(port, { job, limit: setTimeout(() => dismiss(port, late), patience.task) });
      port.perform(job.task).then(
        () => done(port, job.resolve),
        (error: Error) => done(port, () => job.reject(error)),
      );
    }
  }

  function done(port: WorkerPort, settle: () => void): void {
    if (!all.has(port)) return;
    clearTimeout(holding.get(port)?.limit);
    holding.delete(port);
    deaths = 0;
    settle();
    idle.push(port);
    next();
  }

  for (let i = 0; i < size; i++) hire();
  return {
    size,
    run: (task, signal) =>
      new Promise<void>((resolve, reject) => {
        queue.push({ task, signal, resolve, reject });
        if (all.size === 0 && pauses.size === 0) hire();
        next();
      }),
    close() {
      closed = true;
      pauses.forEach(clearTimeout);
      for (const port of all) void port.terminate();
      for (const { job, limit } of holding.values()) {
        clearTimeout(limit);
        job.reject(abortError());
      }
      for (const job of queue) job.reject(abortError());
      queue.length = 0;
      holding.clear();
    },
  };
}
