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
import { createOutputStore, type OutputRow } from './output-store';

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
  start: (order: OutputOrder) => OutputStatus;
  /** All of them, the oldest first. */
  all: () => OutputStatus[];
  status: (id: string) => OutputStatus;
  cancel: (id: string) => Promise<OutputStatus>;
  /** Path and type of a finished picture. Throws 409 while it is not finished, 404 when it was tidied away. */
  file: (id: string) => { path: string; mime: string; fileName: string };
}

/** Share of an output that is told until its file is whole. */
const ALMOST = 0.99;

/** Outputs kept at a time; the oldest finished one goes first. */
const MOST_JOBS = 20;

const isUnderWay = ({ status }: OutputJob) => status.state === 'waiting' || status.state === 'running';

/** @param atOnce outputs that run at a time */
export function createOutputJobs(
  { db, dataDir, plates }: Pick<Workspace, 'db' | 'dataDir' | 'plates'>,
  renderer: Renderer,
  atOnce = availableParallelism(),
): OutputJobs {
  const queue = new PQueue({ concurrency: atOnce });
  const folder = join(dataDir, 'outputs');
  const store = createOutputStore(db);
  const jobs = new Map<string, OutputJob>();

  function find(id: string): OutputJob {
    const job = jobs.get(id);
    if (!job) throw new AppError(404, 'no-output', 'This output is gone. Send it out again.');
    return job;
  }

  function tell({ status }: OutputJob, now: Partial<OutputStatus>): void {
    Object.assign(status, now);
    const { id, state, bytes, reason } = status;
    store.set(id, { state, bytes, reason });
  }

  async function run(job: OutputJob, order: OutputOrder): Promise<void> {
    const { status, cancel } = job;
    const temporary = `${job.path}.part`;
    try {
      cancel.signal.throwIfAborted();
      tell(job, { state: 'running' });
      const onProgress = (done: number) => {
        status.progress = done * ALMOST;
      };
      mkdirSync(folder, { recursive: true });
      const file = await open(temporary, 'w');
      const means = { space: { dataDir, plates }, renderer, signal: cancel.signal, onProgress, temporary };
      const [missing, bytes] = await orderKind(order)
        .write(file, order, means)
        .then(async (missing) => [missing, (await file.stat()).size] as const)
        .finally(() => file.close());
      cancel.signal.throwIfAborted();
      await rename(temporary, job.path);
      tell(job, { state: 'done', progress: 1, bytes, reason: missing });
    } catch (error) {
      await rm(temporary, { force: true });
      if (isAbort(error)) tell(job, { state: 'cancelled' });
      else tell(job, { state: 'failed', reason: reasonFor(error) });
    }
  }

  function forgetOldest(): void {
    const finished = [...jobs.values()].filter((job) => !isUnderWay(job));
    const old = finished.slice(0, Math.max(0, jobs.size - MOST_JOBS));
    store.drop(old.map(({ status }) => status.id));
    for (const { status, path } of old) {
      jobs.delete(status.id);
      void rm(path, { force: true });
    }
  }

  /** A job's status as it is now. */
  function told({ status }: OutputJob): OutputStatus {
    if (status.state !== 'waiting') return { ...status };
    const underWay = [...jobs.values()].filter(isUnderWay);
    return { ...status, ahead: underWay.findIndex((job) => job.status === status) };
  }

  function jobOf(status: OutputStatus, mime: string): OutputJob {
    const path = join(folder, `${status.id}${extname(status.fileName)}`);
    return { status, path, mime, cancel: new AbortController(), finished: Promise.resolve() };
  }

  function lineUp(job: OutputJob, order: OutputOrder): void {
    jobs.set(job.status.id, job);
    job.finished = queue.add(() => run(job, order));
  }

  /** Takes up what an earlier server knew of: what it finished, and what it left half made. */
  function takeUp({ id, state, fileName, bytes, reason, mime }: Omit<OutputRow, 'order'>): void {
    const status: OutputStatus = { id, state, progress: state === 'done' ? 1 : 0, fileName };
    const job = jobOf({ ...status, bytes: bytes ?? undefined, reason: reason ?? undefined }, mime);
    if (!isUnderWay(job)) return void jobs.set(id, job);
    const order = store.orderOf(id);
    job.status.state = 'waiting';
    if (order) return lineUp(job, order);
    jobs.set(id, job);
    tell(job, { state: 'failed', reason: 'Sundew was updated meanwhile. Send it out again.' });
  }

  store.all().forEach(takeUp);

  return {
    start(order) {
      forgetOldest();
      if ([...jobs.values()].filter(isUnderWay).length >= LIMITS.outputs) {
        const message = `${LIMITS.outputs} pictures are on their way out already. Wait for one, or cancel it.`;
        throw new AppError(429, 'too-many-outputs', message);
      }
      const { name: fileName, mime } = orderKind(order).file(order);
      const job = jobOf({ id: randomUUID(), state: 'waiting', progress: 0, fileName }, mime);
      store.add({ id: job.status.id, fileName, mime }, order);
      lineUp(job, order);
      return told(job);
    },
    all: () => [...jobs.values()].map(told),
    status: (id) => told(find(id)),
    async cancel(id) {
      const job = find(id);
      job.cancel.abort();
      // One that waits is out of the line at once, before its turn comes.
      if (job.status.state === 'waiting') tell(job, { state: 'cancelled' });
      else await job.finished;
      return told(job);
    },
    file(id) {
      const { status, path, mime } = find(id);
      if (status.state !== 'done') throw new AppError(409, 'not-ready', 'This picture is not finished yet.');
      if (!existsSync(path)) {
        throw new AppError(404, 'no-output', 'This output was tidied away. Send it out again.');
      }
      return { path, mime, fileName: status.fileName };
    },
  };
}

function reasonFor(error: unknown): string {
  if (diskFull(error)) return 'The disk is full. Free some space and send it out again.';
  return `The picture could not be made: ${(error as Error).message}`;
}
