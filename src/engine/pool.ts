import { abortError } from './aborted';
import type { Task } from './task';

/** A worker as the pool sees it, whatever thread it runs on. */
export interface WorkerPort {
  perform: (task: Task) => Promise<void>;
  /** Settles when the worker has died by itself, with the reason. */
  died: Promise<Error>;
  terminate: () => void;
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

/** Starts `size` workers. One that dies rejects the task that it held and is replaced. */
export function createPool(spawn: () => WorkerPort, size: number): Pool {
  const queue: Job[] = [];
  const idle: WorkerPort[] = [];
  const all = new Set<WorkerPort>();
  const holding = new Map<WorkerPort, Job>();
  let closed = false;

  function hire(): void {
    const port = spawn();
    all.add(port);
    idle.push(port);
    void port.died.then((reason) => {
      if (closed) return;
      holding.get(port)?.reject(new WorkerDiedError(`A render worker stopped: ${reason.message}`));
      holding.delete(port);
      all.delete(port);
      const at = idle.indexOf(port);
      if (at >= 0) idle.splice(at, 1);
      hire();
      next();
    });
  }

  function next(): void {
    while (queue.length > 0 && idle.length > 0) {
      const job = queue.shift()!;
      if (job.signal?.aborted) {
        job.reject(abortError());
        continue;
      }
      const port = idle.pop()!;
      holding.set(port, job);
      port.perform(job.task).then(
        () => done(port, job.resolve),
        (error: Error) => done(port, () => job.reject(error)),
      );
    }
  }

  function done(port: WorkerPort, settle: () => void): void {
    settle();
    holding.delete(port);
    if (all.has(port)) idle.push(port);
    next();
  }

  for (let i = 0; i < size; i++) hire();
  return {
    size,
    run: (task, signal) =>
      new Promise<void>((resolve, reject) => {
        queue.push({ task, signal, resolve, reject });
        next();
      }),
    close() {
      closed = true;
      for (const port of all) port.terminate();
      for (const job of [...queue, ...holding.values()]) job.reject(abortError());
      queue.length = 0;
      holding.clear();
    },
  };
}
