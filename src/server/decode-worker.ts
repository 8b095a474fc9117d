import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { parentPort, workerData } from 'node:worker_threads';
import type { DecodedCodes, DecodeFault, DecodeJob } from './decode-job';
import { developRaw } from './develop-raw';
import { codesToSrgb } from './codes-to-srgb';

if (!parentPort) throw new Error('This file is a worker thread.');
const port = parentPort;
const { resolve } = createRequire(import.meta.url);

/** One job, one thread: what a decoder takes of memory is given back when it ends. */
async function work(job: DecodeJob): Promise<DecodedCodes> {
  if (job.type === 'raw')
    return developRaw(readFileSync(job.path), readFileSync(resolve('libraw-wasm/dist/libraw.wasm')));
  return { ...job, data: await codesToSrgb(job.data, job.profile) };
}

work(workerData as DecodeJob).then(
  ({ data, width, height }) =>
    port.postMessage({ data, width, height } satisfies DecodedCodes, [data.buffer as ArrayBuffer]),
  (error: unknown) =>
    port.postMessage({ fault: error instanceof Error ? error.message : 'unreadable' } satisfies DecodeFault),
);
