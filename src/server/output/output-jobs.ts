import { randomUUID } from 'node:crypto';
import { availableParallelism } from 'node:os';
import { mkdirSync, rmSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import PQueue from 'p-queue';
import { framedSize } from '@/core/frame/frame';
import { OUTPUT_FORMATS, outputSize, type OutputChoice } from '@/core/output/output-formats';
import type { Scene } from '@/core/scene/schema';
import { isAbort } from '@/engine/aborted';
import type { Renderer } from '@/engine/renderer';
import { AppError, diskFull } from '../http/app-error';
import type { Workspace } from '../assets/workspace';
import { LIMITS } from '../http/limits';
import { writeOutput } from './write-output';

export type OutputState = 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';

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
  reason?: string;
}

interface OutputJob {
  status: OutputStatus;
  path: string;
  mime: string;
  cancel: AbortController;
  finished: Promise<void>;
}

/** Outputs of one server run. Finished files are kept until the next one starts. */
export interface OutputJobs {
  /** Lines an output up behind those that wait. Throws 429 when too many do. */
  start: (scene: Scene, choice: OutputChoice) => OutputStatus;
  status: (id: string) => OutputStatus;
  cancel: (id: string) => Promise<OutputStatus>;
  /** Path and type of a finished picture. Throws 409 while it is not finished. */
  file: (id: string) => { path: string; mime: string; fileName: string };
}

/** Share of an output that is told until its file is whole. */
const ALMOST = 0.99;

/** Outputs kept at a time; the oldest finished one goes first. */
const MOST_JOBS = 20;

const isUnderWay = ({ status }: OutputJob) => status.state === 'waiting' || status.state === 'running';

/** @param atOnce outputs that run at a time */
export function createOutputJobs(
  { dataDir, plates }: Pick<Workspace, 'dataDir' | 'plates'>,
  renderer: Renderer,
  atOnce = availableParallelism(),
): OutputJobs {
  const queue = new PQueue({ concurrency: atOnce });
  const folder = join(dataDir, 'outputs');
  rmSync(folder, { recursive: true, force: true });
  const jobs = new Map<string, OutputJob>();

  function find(id: string): OutputJob {
    const job = jobs.get(id);
    if (!job)
      throw new AppError(
        404,
        'no-output',
        'This output is gone: the server was restarted. Send it out again.',
      );
    return job;
  }

  async function run(job: OutputJob, scene: Scene, choice: OutputChoice): Promise<void> {
    const { status, cancel } = job;
    const size = outputSize(framedSize(scene.plate, scene.frame), choice.long);
    const temporary = `${job.path}.part`;
    try {
      cancel.signal.throwIfAborted();
      status.state = 'running';
      const onProgress = (done: number) => {
        status.progress = done * ALMOST;
      };
      mkdirSync(folder, { recursive: true });
      const file = await open(temporary, 'w');
      const work = { renderer, plates, scene, size, signal: cancel.signal, onProgress };
      const bytes = await writeOutput(file, work, choice)
        .then(async () => (await file.stat()).size)
        .finally(() => file.close());
      cancel.signal.throwIfAborted();
      await rename(temporary, job.path);
      Object.assign(status, { state: 'done', progress: 1, bytes });
    } catch (error) {
      await rm(temporary, { force: true });
      if (isAbort(error)) status.state = 'cancelled';
      else Object.assign(status, { state: 'failed', reason: reasonFor(error) });
    }
  }

  function forgetOldest(): void {
    const finished = [...jobs.values()].filter((job) => !isUnderWay(job));
    for (const { status, path } of finished.slice(0, Math.max(0, jobs.size - MOST_JOBS))) {
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

  return {
    start(scene, choice) {
      forgetOldest();
      if ([...jobs.values()].filter(isUnderWay).length >= LIMITS.outputs) {
        const message = `${LIMITS.outputs} pictures are on their way out already. Wait for one, or cancel it.`;
        throw new AppError(429, 'too-many-outputs', message);
      }
      const id = randomUUID();
      const { ending, mime } = OUTPUT_FORMATS[choice.format];
      const job: OutputJob = {
        status: { id, state: 'waiting', progress: 0, fileName: `${fileStem(scene.title)}.${ending}` },
        path: join(folder, `${id}.${ending}`),
        mime,
        cancel: new AbortController(),
        finished: Promise.resolve(),
      };
      jobs.set(id, job);
      job.finished = queue.add(() => run(job, scene, choice));
      return told(job);
    },
    status: (id) => told(find(id)),
    async cancel(id) {
      const job = find(id);
      job.cancel.abort();
      // One that waits is out of the line at once, before its turn comes.
      if (job.status.state === 'waiting') job.status.state = 'cancelled';
      else await job.finished;
      return told(job);
    },
    file(id) {
      const { status, path, mime } = find(id);
      if (status.state !== 'done') throw new AppError(409, 'not-ready', 'This picture is not finished yet.');
      return { path, mime, fileName: status.fileName };
    },
  };
}

function reasonFor(error: unknown): string {
  if (diskFull(error)) return 'The disk is full. Free some space and send it out again.';
  return `The picture could not be made: ${(error as Error).message}`;
}

/** A name as part of a file name: plain letters, digits and dashes. */
export function slug(name: string, otherwise: string): string {
  const stem = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return stem || otherwise;
}

/** The name of a scene's files, without their ending. */
export const fileStem = (title: string): string => `${slug(title, 'scene')}-night`;
