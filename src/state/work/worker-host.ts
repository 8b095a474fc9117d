import { wrap, type Remote } from 'comlink';

/** A worker that is begun when it is first asked, and anew after it was given up or failed. */
export interface WorkerHost<Service> {
  start: () => Promise<Remote<Service>>;
  /** What the worker answers, unless it is given up before: a terminated one never answers. */
  ask: <T>(question: (service: Remote<Service>) => Promise<T>) => Promise<T>;
  /** Gives up what is under way. */
  cancel: () => void;
}

/** What a worker is: where it is served, and what is said when it does not load. */
export interface WorkerFile {
  path: string;
  missing: string;
}

/** @param open hands a worker that was begun its plate */
export function hostWorker<Service>(
  { path, missing }: WorkerFile,
  open: (service: Remote<Service>, signal: AbortSignal) => Promise<void>,
): WorkerHost<Service> {
  let running: { worker: Worker; service: Promise<Remote<Service>> } | undefined;
  let giveUp = new AbortController();

  async function begin(worker: Worker, signal: AbortSignal): Promise<Remote<Service>> {
    const service = wrap<Service>(worker);
    await open(service, signal);
    return service;
  }

  function end(worker: Worker): void {
    worker.terminate();
    if (running?.worker === worker) running = undefined;
  }

  function start(): Promise<Remote<Service>> {
    if (running) return running.service;
    giveUp = new AbortController();
    const worker = new Worker(`${path}?build=${process.env.SUNDEW_BUILD ?? ''}`);
    const failed = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => reject(new Error(missing)));
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
