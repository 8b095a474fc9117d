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
  run(task: Task, signal?: AbortSignal): Promise<void>;
  close(): void;
}

interface Job {
  task: Task;
  signal?: AbortSignal;
  resolve: () => void;
  reject: (reason: Error) => void;
}

/** What a worker is at, and when it is given up. */
interface Held {
  job: Job;
  limit: ReturnType<typeof setTimeout>;
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
export const createPool = (spawn: () => WorkerPort, size: number, patience: Patience = PATIENCE): Pool =>
  new WorkerPool(spawn, size, patience);

class WorkerPool implements Pool {
  private readonly queue: Job[] = [];
  private readonly idle: WorkerPort[] = [];
  private readonly all = new Set<WorkerPort>();
  private readonly holding = new Map<WorkerPort, Held>();
  private readonly pauses = new Set<ReturnType<typeof setTimeout>>();
  private deaths = 0;
  private closed = false;

  constructor(
    private readonly spawn: () => WorkerPort,
    readonly size: number,
    private readonly patience: Patience,
  ) {
    for (let i = 0; i < size; i++) this.hire();
  }

  run(task: Task, signal?: AbortSignal): Promise<void> {
    return new Promise<void>((resolve, reject) => {
      this.queue.push({ task, signal, resolve, reject });
      if (this.all.size === 0 && this.pauses.size === 0) this.hire();
      this.next();
    });
  }

  close(): void {
    this.closed = true;
    this.pauses.forEach(clearTimeout);
    for (const port of this.all) void port.terminate();
    for (const { job, limit } of this.holding.values()) {
      clearTimeout(limit);
      job.reject(abortError());
    }
    for (const job of this.queue) job.reject(abortError());
    this.queue.length = 0;
    this.holding.clear();
  }

  private hire(): void {
    if (this.closed) return;
    let port: WorkerPort;
    try {
      port = this.spawn();
    } catch (error) {
      return this.replace(error as Error);
    }
    this.all.add(port);
    this.idle.push(port);
    void port.died.then((reason) => this.dismiss(port, reason));
    this.next();
  }

  /** Lets a worker go that is of no use any more, and hires another. What it held is rejected once it has ended. */
  private dismiss(port: WorkerPort, reason: Error): void {
    if (!this.all.delete(port)) return;
    const at = this.idle.indexOf(port);
    if (at >= 0) this.idle.splice(at, 1);
    const held = this.holding.get(port);
    this.holding.delete(port);
    clearTimeout(held?.limit);
    void port.terminate().then(() => {
      held?.job.reject(new WorkerDiedError(`A render worker stopped: ${reason.message}`));
      if (!this.closed) this.replace(reason);
    });
  }

  private replace(reason: Error): void {
    if (++this.deaths >= this.patience.deaths) return this.giveUp(reason);
    const wait = this.patience.pause * 2 ** (this.deaths - 1);
    const pause = setTimeout(() => {
      this.pauses.delete(pause);
      this.hire();
    }, wait);
    this.pauses.add(pause);
  }

  private giveUp(reason: Error): void {
    if (this.all.size > 0) return;
    for (const job of this.queue.splice(0))
      job.reject(new WorkerDiedError(`Render workers keep stopping: ${reason.message}. Reload the page.`));
  }

  /** Gives waiting jobs to idle workers. */
  private next(): void {
    while (this.queue.length > 0 && this.idle.length > 0) {
      const job = this.queue.shift()!;
      if (job.signal?.aborted) job.reject(abortError());
      else this.give(this.idle.pop()!, job);
    }
  }

  private give(port: WorkerPort, job: Job): void {
    const { task } = this.patience;
    const late = new Error(`it took longer than ${task / 1000} s for "${taskName(job.task)}"`);
    this.holding.set(port, { job, limit: setTimeout(() => this.dismiss(port, late), task) });
    port.perform(job.task).then(
      () => this.done(port, job.resolve),
      (error: Error) => this.done(port, () => job.reject(error)),
    );
  }

  private done(port: WorkerPort, settle: () => void): void {
    if (!this.all.has(port)) return;
    clearTimeout(this.holding.get(port)?.limit);
    this.holding.delete(port);
    this.deaths = 0;
    settle();
    this.idle.push(port);
    this.next();
  }
}
