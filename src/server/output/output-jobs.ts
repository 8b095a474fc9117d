import { randomUUID } from 'node:crypto';
import { availableParallelism } from 'node:os';
import { existsSync, mkdirSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { extname, join } from 'node:path';
import PQueue from 'p-queue';
import type { OutputOrder } from '@/core/output/output-order';
import { isAbort } from '@/engine/aborted';
import type { Renderer } from '@/engine/renderer';
import { AppError, diskFull } from '../http/app-error';
import type { Workspace } from '../assets/workspace';
import { LIMITS } from '../http/limits';
import { orderKind } from './orders';
import { createOutputStore, type OutputRow, type OutputStore } from './output-store';

export type OutputState = OutputRow['state'];

/** A picture on its way out, as the interface sees it. */
export interface OutputStatus {
  id: string;
  state: OutputState;
  /** How many wait or run before it, while it waits. */
  ahead?: number;
  /** 0 to 1. */
  progress: number;
  fileName: string;
  bytes?: number;
  /** Why it failed, or what is missing in it. */
  reason?: string;
}

interface OutputJob {
  status: OutputStatus;
  path: string;
  mime: string;
  cancel: AbortController;
  finished: Promise<void>;
}

/** Outputs of an installation. Those that a stopped server left half made begin anew with the next one. */
export interface OutputJobs {
  /** Lines an output up behind those that wait. Throws 429 when too many do. */
  start(order: OutputOrder): OutputStatus;
  /** All of them, the oldest first. */
  all(): OutputStatus[];
  status(id: string): OutputStatus;
  cancel(id: string): Promise<OutputStatus>;
  /** Path and type of a finished picture. Throws 409 while it is not finished, 404 when it was tidied away. */
  file(id: string): { path: string; mime: string; fileName: string };
}

/** Share of an output that is told until its file is whole. */
const ALMOST = 0.99;

/** Outputs kept at a time; the oldest finished one goes first. */
const MOST_JOBS = 20;

const isUnderWay = ({ status }: OutputJob) => status.state === 'waiting' || status.state === 'running';

/** Where outputs are read from, and put. */
type OutputSpace = Pick<Workspace, 'db' | 'dataDir' | 'plates'>;

/** @param atOnce outputs that run at a time */
export const createOutputJobs = (
  space: OutputSpace,
  renderer: Renderer,
  atOnce = availableParallelism(),
): OutputJobs => new QueuedOutputs(space, renderer, atOnce);

class QueuedOutputs implements OutputJobs {
  private readonly queue: PQueue;
  private readonly folder: string;
  private readonly store: OutputStore;
  private readonly jobs = new Map<string, OutputJob>();

  constructor(
    private readonly space: OutputSpace,
    private readonly renderer: Renderer,
    atOnce: number,
  ) {
    this.queue = new PQueue({ concurrency: atOnce });
    this.folder = join(space.dataDir, 'outputs');
    this.store = createOutputStore(space.db);
    this.store.all().forEach((row) => this.takeUp(row));
  }

  start(order: OutputOrder): OutputStatus {
    this.forgetOldest();
    if ([...this.jobs.values()].filter(isUnderWay).length >= LIMITS.outputs) {
      const message = `${LIMITS.outputs} pictures are on their way out already. Wait for one, or cancel it.`;
      throw new AppError(429, 'too-many-outputs', message);
    }
    const { name: fileName, mime } = orderKind(order).file(order);
    const job = this.jobOf({ id: randomUUID(), state: 'waiting', progress: 0, fileName }, mime);
    this.store.add({ id: job.status.id, fileName, mime }, order);
    this.lineUp(job, order);
    return this.told(job);
  }

  all(): OutputStatus[] {
    return [...this.jobs.values()].map((job) => this.told(job));
  }

  status(id: string): OutputStatus {
    return this.told(this.find(id));
  }

  async cancel(id: string): Promise<OutputStatus> {
    const job = this.find(id);
    job.cancel.abort();
    // One that waits is out of the line at once, before its turn comes.
    if (job.status.state === 'waiting') this.tell(job, { state: 'cancelled' });
    else await job.finished;
    return this.told(job);
  }

  file(id: string): { path: string; mime: string; fileName: string } {
    const { status, path, mime } = this.find(id);
    if (status.state !== 'done') throw new AppError(409, 'not-ready', 'This picture is not finished yet.');
    if (!existsSync(path)) {
      throw new AppError(404, 'no-output', 'This output was tidied away. Send it out again.');
    }
    return { path, mime, fileName: status.fileName };
  }

  private find(id: string): OutputJob {
    const job = this.jobs.get(id);
    if (!job) throw new AppError(404, 'no-output', 'This output is gone. Send it out again.');
    return job;
  }

  /** Notes what became of a job, here and where the next server finds it. */
  private tell({ status }: OutputJob, now: Partial<OutputStatus>): void {
    Object.assign(status, now);
    const { id, state, bytes, reason } = status;
    this.store.set(id, { state, bytes, reason });
  }

  /** A job's status as it is now. */
  private told({ status }: OutputJob): OutputStatus {
    if (status.state !== 'waiting') return { ...status };
    const underWay = [...this.jobs.values()].filter(isUnderWay);
    return { ...status, ahead: underWay.findIndex((job) => job.status === status) };
  }

  private async run(job: OutputJob, order: OutputOrder): Promise<void> {
    const temporary = `${job.path}.part`;
    try {
      job.cancel.signal.throwIfAborted();
      this.tell(job, { state: 'running' });
      const { missing, bytes } = await this.write(job, order, temporary);
      job.cancel.signal.throwIfAborted();
      await rename(temporary, job.path);
      this.tell(job, { state: 'done', progress: 1, bytes, reason: missing });
    } catch (error) {
      await rm(temporary, { force: true });
      if (isAbort(error)) this.tell(job, { state: 'cancelled' });
      else this.tell(job, { state: 'failed', reason: reasonFor(error) });
    }
  }

  /** Writes an output's file; its length, and what is missing in it. */
  private async write({ status, cancel: { signal } }: OutputJob, order: OutputOrder, temporary: string) {
    const onProgress = (done: number) => {
      status.progress = done * ALMOST;
    };
    mkdirSync(this.folder, { recursive: true });
    const file = await open(temporary, 'w');
    try {
      const { space, renderer } = this;
      const missing = await orderKind(order).write(file, order, {
        ...{ space, renderer, signal, onProgress, temporary },
      });
      return { missing, bytes: (await file.stat()).size };
    } finally {
      await file.close();
    }
  }

  private forgetOldest(): void {
    const finished = [...this.jobs.values()].filter((job) => !isUnderWay(job));
    const old = finished.slice(0, Math.max(0, this.jobs.size - MOST_JOBS));
    this.store.drop(old.map(({ status }) => status.id));
    for (const { status, path } of old) {
      this.jobs.delete(status.id);
      void rm(path, { force: true });
    }
  }

  private jobOf(status: OutputStatus, mime: string): OutputJob {
    const path = join(this.folder, `${status.id}${extname(status.fileName)}`);
    return { status, path, mime, cancel: new AbortController(), finished: Promise.resolve() };
  }

  private lineUp(job: OutputJob, order: OutputOrder): void {
    this.jobs.set(job.status.id, job);
    job.finished = this.queue.add(() => this.run(job, order));
  }

  /** Takes up what an earlier server knew of: what it finished, and what it left half made. */
  private takeUp({ id, state, fileName, bytes, reason, mime }: Omit<OutputRow, 'order'>): void {
    const status: OutputStatus = { id, state, progress: state === 'done' ? 1 : 0, fileName };
    const job = this.jobOf({ ...status, bytes: bytes ?? undefined, reason: reason ?? undefined }, mime);
    if (!isUnderWay(job)) return void this.jobs.set(id, job);
    const order = this.store.orderOf(id);
    job.status.state = 'waiting';
    if (order) return this.lineUp(job, order);
    this.jobs.set(id, job);
    this.tell(job, { state: 'failed', reason: 'Sundew was updated meanwhile. Send it out again.' });
  }
}

function reasonFor(error: unknown): string {
  if (diskFull(error)) return 'The disk is full. Free some space and send it out again.';
  return `The picture could not be made: ${(error as Error).message}`;
}
