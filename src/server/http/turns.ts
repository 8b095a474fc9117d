import PQueue from 'p-queue';

/** Lets so much work of one sort go on at a time; more waits its turn. */
export interface Turns {
  run: <T>(work: () => Promise<T>) => Promise<T>;
}

export function createTurns(atOnce: number): Turns {
  const queue = new PQueue({ concurrency: atOnce });
  return { run: (work) => queue.add(work) as ReturnType<typeof work> };
}
