import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { DecodedCodes, DecodeFault, DecodeJob } from './decode-job';

/** Where `npm run build:workers` leaves the bundled worker. */
const WORKER_FILE = ['dist', 'decode-worker.mjs'];

/** Does a job on a thread of its own. Rejects with the reason when it cannot be done. */
export function decodeOnThread(job: DecodeJob): Promise<DecodedCodes> {
  return new Promise((resolve, reject) => {
    const file = join(/* turbopackIgnore: true */ process.cwd(), ...WORKER_FILE);
    const transferList = job.type === 'profile' ? [job.data.buffer as ArrayBuffer] : [];
    const worker = new Worker(file, { workerData: job, transferList });
    worker.once('message', (answer: DecodedCodes | DecodeFault) => {
      if ('fault' in answer) reject(new Error(answer.fault));
      else resolve(answer);
      void worker.terminate();
    });
    worker.once('error', reject);
    worker.once('exit', (code) => reject(new Error(`The decoder stopped with ${code}.`)));
  });
}
