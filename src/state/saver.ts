import type { LogEntry } from '@/core/scene/history';
import type { Scene } from '@/core/scene/schema';
import { ApiError } from './api';
import type { Outbox } from './outbox';

/**
 * saved     the server has everything
 * saving    it is being told
 * waiting   it does not answer, or has no room; it is asked again and again
 * stale     the scene was changed elsewhere: a person must choose
 * refused   the server will not take this change: a person must choose
 */
export type SaveState = 'saved' | 'saving' | 'waiting' | 'stale' | 'refused';

export interface SaverOptions {
  revision: number;
  send: (base: number, entries: LogEntry[]) => Promise<number>;
  /** Keeps what is not saved yet where it outlives the window. */
  keep: (outbox: Outbox) => void;
  onState: (state: SaveState, reason?: string) => void;
  /** Milliseconds before a failed save is tried again. */
  retryAfter?: number;
}

/** Sends entries of the log to the server in order, one request at a time. */
export interface Saver {
  push: (entry: LogEntry, scene: Scene) => void;
  /** Settles once everything pushed so far is saved; rejects when a person must choose first. */
  flush: () => Promise<void>;
  /** Takes up what an earlier window left unsaved. */
  resume: (outbox: Outbox) => void;
  stop: () => void;
}

/** Most entries of one request. */
const BATCH = 50;

export function createSaver({ revision, send, keep, onState, retryAfter = 2000 }: SaverOptions): Saver {
  let base = revision;
  let entries: LogEntry[] = [];
  let scene: Scene | undefined;
  let busy = false;
  let stuck: ApiError | undefined;
  let retry: ReturnType<typeof setTimeout> | undefined;
  let waiters: { resolve: () => void; reject: (reason: Error) => void }[] = [];

  const settle = (tell: (waiter: (typeof waiters)[number]) => void) => {
    waiters.forEach(tell);
    waiters = [];
  };

  async function work(): Promise<void> {
    if (busy || stuck) return;
    busy = true;
    clearTimeout(retry);
    try {
      while (entries.length > 0) {
        onState('saving');
        const batch = entries.slice(0, BATCH);
        base = await send(base, batch);
        entries = entries.slice(batch.length);
        keep({ base, entries, scene: scene! });
      }
      onState('saved');
      settle(({ resolve }) => resolve());
    } catch (error) {
      failed(error instanceof ApiError ? error : new ApiError(0, 'fault', String(error)));
    } finally {
      busy = false;
    }
  }

  function failed(error: ApiError): void {
    const final = error.status >= 400 && error.status < 500;
    if (final) {
      stuck = error;
      onState(error.status === 409 ? 'stale' : 'refused', error.message);
      settle(({ reject }) => reject(error));
    } else {
      onState('waiting', error.message);
      retry = setTimeout(() => void work(), retryAfter);
    }
  }

  return {
    push(entry, next) {
      entries = [...entries, entry];
      scene = next;
      keep({ base, entries, scene });
      void work();
    },
    flush() {
      if (stuck) return Promise.reject(stuck);
      if (entries.length === 0) return Promise.resolve();
      const done = new Promise<void>((resolve, reject) => waiters.push({ resolve, reject }));
      void work();
      return done;
    },
    resume(outbox) {
      base = outbox.base;
      entries = outbox.entries;
      scene = outbox.scene;
      void work();
    },
    stop() {
      clearTimeout(retry);
    },
  };
}
