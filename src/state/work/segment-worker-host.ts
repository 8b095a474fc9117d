import { wrap, type Remote } from 'comlink';
import type { SegmentService } from '@/segment/segment-service';

/** Where the worker is served. */
const WORKER = `/segment-worker.js?build=${process.env.SUNDEW_BUILD ?? ''}`;

type Service = Remote<SegmentService>;

/** The segmentation's worker: begun when it is first asked, and anew after it was given up or failed. */
export interface SegmentWorkerHost {
  start: () => Promise<Service>;
  /** What the worker answers, unless it is given up before: a terminated one never answers. */
  ask: <T>(question: (service: Service) => Promise<T>) => Promise<T>;
  /** Gives up what is under way. */
  cancel: () => void;
}

/** @param open hands a worker that was begun its plate */
export function hostSegmentWorker(
  open: (service: Service, signal: AbortSignal) => Promise<void>,
): SegmentWorkerHost {
  let running: { worker: Worker; service: Promise<Service> } | undefined;
  let giveUp = new AbortController();

  async function begin(worker: Worker, signal: AbortSignal): Promise<Service> {
    const service = wrap<SegmentService>(worker);
    await open(service, signal);
    return service;
  }

  function end(worker: Worker): void {
    worker.terminate();
    if (running?.worker === worker) running = undefined;
  }

  function start(): Promise<Service> {
    if (running) return running.service;
    giveUp = new AbortController();
    const worker = new Worker(WORKER);
    const failed = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () =>
        reject(new Error('The part that finds edges did not load. Once the server answers, try again.')),
      );
    });
    const service = Promise.race([begin(worker, giveUp.signal), failed]);
    running = { worker, service };
    // The next call begins anew; who asked gets the reason.
    service.catch(() => end(worker));
    return service;
  }

  return {
    start,
    ask(question) {
      const answer = start().then(question);
      const { signal } = giveUp;
      const givenUp = new Promise<never>((_, reject) => {
        signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true });
      });
      return Promise.race([answer, givenUp]);
    },
    cancel() {
      giveUp.abort(new DOMException('Given up.', 'AbortError'));
      if (running) end(running.worker);
    },
  };
}
