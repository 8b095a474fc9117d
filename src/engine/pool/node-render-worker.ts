import { parentPort } from 'node:worker_threads';
import { expose } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { createPerformerService } from './performer-service';

if (!parentPort) throw new Error('This file is a worker thread.');
expose(createPerformerService(), nodeEndpoint(parentPort));
