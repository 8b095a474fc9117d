import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { parentPort, workerData } from 'node:worker_threads';
import { AppError } from '../http/app-error';
import { codesToSrgb } from './codes-to-srgb';
import { readColorProfile } from './color-profile';
import type { DecodeAnswer, DecodeJob, DecodeKind, DecodeWork } from './decode-job';
import { developRaw } from './develop-raw';
import { unpackScene } from '../scenes/unpack-scene';

if (!parentPort) throw new Error('This file is a worker thread.');
const port = parentPort;
const { resolve } = createRequire(import.meta.url);

type Workers = {
  [Kind in DecodeKind]: (given: DecodeWork[Kind]['given']) => Promise<DecodeWork[Kind]['gives']>;
};

const WORKERS: Workers = {
  raw: ({ path }) => developRaw(readFileSync(path), readFileSync(resolve('libraw-wasm/dist/libraw.wasm'))),
  profile: readColorProfile,
  convert: codesToSrgb,
  unpack: unpackScene,
};

/** One job, one thread: what a decoder takes of memory is given back when it ends. */
async function work<Kind extends DecodeKind>({ kind, given }: DecodeJob<Kind>): Promise<void> {
  const gives = await WORKERS[kind](given);
  const moved = 'data' in gives ? [gives.data.buffer as ArrayBuffer] : [];
  port.postMessage({ gives } satisfies DecodeAnswer<Kind>, moved);
}

work(workerData as DecodeJob).catch((error: unknown) => {
  const message = error instanceof Error ? error.message : 'unreadable';
  const { status, code } = error instanceof AppError ? error : { status: 422, code: 'unreadable' };
  port.postMessage({ fault: { status, code, message } } satisfies DecodeAnswer);
});
