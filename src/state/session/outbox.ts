import { array, number, object, string } from 'yup';
import type { LogEntry } from '@/core/scene/history';
import { SCENE_VERSION, type Scene } from '@/core/scene/schema';

/** What a window has not got saved yet. It outlives the window. */
export interface Outbox {
  /** Version of scenes that the entries are of. */
  version: number;
  /** Revision on which the first entry builds. */
  base: number;
  entries: LogEntry[];
  /** The document with all entries in it; missing where the browser had no room for it. */
  scene?: Scene;
}

const outboxSchema = object({
  version: number().integer().required(),
  base: number().integer().min(0).required(),
  entries: array(
    object({
      id: string().required(),
      kind: string().oneOf(['do', 'undo', 'redo']).required(),
      label: string().required(),
      patches: array().required(),
      inverse: array().required(),
    }).required(),
  ).required(),
});

/** Text of a browser's storage as an outbox; undefined for what is none. The scene in it is still to be checked. */
function readOutbox(text: string): Outbox | undefined {
  try {
    const value = JSON.parse(text) as Partial<Outbox>;
    // What was kept before versions were told is of a version that is not known.
    const outbox = { version: 0, ...value };
    outboxSchema.validateSync(outbox, { strict: true });
    return outbox as Outbox;
  } catch {
    return undefined;
  }
}

/** What a browser gives a window to keep things in, and to tell others that it is there. */
export interface Browser {
  storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;
  locks: Pick<LockManager, 'query' | 'request'>;
}

const PREFIX = 'sundew:outbox:';
const keyOf = (sceneId: string, windowId: string) => `${PREFIX}${sceneId}:${windowId}`;
const lockOf = (key: string) => `sundew:window:${key}`;

/** Where one window on one scene keeps what is not saved. No two windows share a place. */
export interface OutboxPlace {
  /** Keeps it, or lets go of it when nothing is left. Says whether the browser had room. */
  write: (outbox: Outbox) => boolean;
  /**
   * Says that the window is there. Others see its place as taken until it is left, which is what comes back, or the window is gone;
   * then another may take up what it left.
   */
  enter: () => () => void;
}

/** A window's place of its own. */
export function createPlace(sceneId: string, windowId: string, { storage, locks }: Browser): OutboxPlace {
  const key = keyOf(sceneId, windowId);

  function put(outbox: Outbox): boolean {
    try {
      storage.setItem(key, JSON.stringify(outbox));
      return true;
    } catch {
      return false;
    }
  }

  return {
    write(outbox) {
      if (outbox.entries.length > 0) return put(outbox) || put({ ...outbox, scene: undefined });
      storage.removeItem(key);
      return true;
    },
    enter() {
      let leave = () => {};
      const left = new Promise<void>((resolve) => (leave = resolve));
      // A page on its way out gets no lock, and needs none.
      locks.request(lockOf(key), () => left).catch(() => {});
      return leave;
    },
  };
}

/** Keys of what windows on a scene kept, and of what was kept before windows had places of their own. */
function keysOf(sceneId: string, storage: Browser['storage']): string[] {
  const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? '');
  return keys.filter((key) => key === `${PREFIX}${sceneId}` || key.startsWith(`${PREFIX}${sceneId}:`));
}

/** What a window that is gone has left. */
export interface Left {
  outbox: Outbox | undefined;
  /** Lets go of it, once another place keeps it. */
  forget: () => void;
}

/**
 * Finds what windows on a scene left that are gone. Text that cannot be read is told of with an undefined outbox. Of the rest,
 * what builds on the newest revision comes first.
 */
export async function findLeft(sceneId: string, { storage, locks }: Browser): Promise<Left[]> {
  const { held = [] } = await locks.query();
  const taken = new Set(held.map(({ name }) => name));
  const left = keysOf(sceneId, storage)
    .filter((key) => !taken.has(lockOf(key)))
    .map((key) => ({
      outbox: readOutbox(storage.getItem(key) ?? ''),
      forget: () => storage.removeItem(key),
    }));
  return left.sort((a, b) => (b.outbox?.base ?? -1) - (a.outbox?.base ?? -1));
}

/** An outbox of the present version. */
export const currentOutbox = (base: number, entries: LogEntry[], scene: Scene): Outbox => ({
  version: SCENE_VERSION,
  base,
  entries,
  scene,
});
