import type { ThingBox } from '@/core/layout/guess-things';
import type { DetectService } from '@/detect/detect-service';
import type { Picture } from '@/segment/picture';
import { hostWorker } from './worker-host';

const WORKER = {
  path: '/detect-worker.js',
  missing: 'The part that sees things did not load. Once the server answers, try again.',
};

/** What looks for things in a plate, in a worker of its own: once, for what is seen stays so wherever its horizon is put. */
export interface ThingLooker {
  look: (horizon: number) => Promise<ThingBox[]>;
  /** Gives up what is under way. */
  cancel: () => void;
}

export function createThingLooker(pictureOf: (signal: AbortSignal) => Promise<Picture>): ThingLooker {
  const { ask, cancel } = hostWorker<DetectService>(WORKER, async (service, signal) => {
    await service.open(await pictureOf(signal));
  });
  let seen: Promise<ThingBox[]> | undefined;

  /** The worker ends with it: the network takes memory. */
  async function lookOnce(horizon: number): Promise<ThingBox[]> {
    try {
      return await ask((service) => service.things(horizon));
    } finally {
      cancel();
    }
  }

  return {
    look(horizon) {
      seen ??= lookOnce(horizon).catch((reason: unknown) => {
        seen = undefined;
        throw reason;
      });
      return seen;
    },
    cancel,
  };
}
