import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { AppError } from '../http/app-error';
import type { DecodeAnswer, DecodeJob, DecodeKind, DecodeWork } from './decode-job';
import { LIMITS } from '../http/limits';

/** Where `npm run build:workers` leaves the bundled worker. */
const WORKER_FILE = ['dist', 'decode-worker.mjs'];

/**
 * Does a job on a thread of its own, which ends with it. Rejects with an AppError that says why it cannot be done, also when
 * it takes longer than anything that is not broken.
 */
export function decodeOnThread<Kind extends DecodeKind>(
  kind: Kind,
  given: DecodeWork[Kind]['given'],
  seconds: number = LIMITS.decodeSeconds,
): Promise<DecodeWork[Kind]['gives']> {
  return new Promise((resolve, reject) => {
    const file = join(/* turbopackIgnore: true */ process.cwd(), ...WORKER_FILE);
    const worker = new Worker(file, { workerData: { kind, given } satisfies DecodeJob<Kind> });
    const end = (settle: () => void) => {
      clearTimeout(patience);
      settle();
      void worker.terminate();
    };
    const fail = (error: Error) => end(() => reject(error));
    const patience = setTimeout(() => fail(tooLong()), 1000 * seconds);
    worker.once('message', (answer: DecodeAnswer<Kind>) => {
      if ('gives' in answer) return end(() => resolve(answer.gives));
      const { status, code, message } = answer.fault;
      fail(new AppError(status, code, message));
    });
    worker.once('error', fail);
    worker.once('exit', (code) => fail(new Error(`The decoder stopped with ${code}.`)));
  });
}

const tooLong = () =>
  new AppError(422, 'too-long', 'Reading this file takes too long. Save the photo anew and try again.');
