import type { LogEntry } from '@/core/scene/history';
import type { Scene } from '@/core/scene/schema';
import { ApiError } from './api';
import { currentOutbox, type Outbox } from './outbox';

/**
 * saved     the server has everything
 * saving    it is being told
 * waiting   it does not answer, or has no room; it is asked again and again
 * failing   it fails again and again; it is asked when a person says so, or with the next change
 * stale     the scene was changed elsewhere: a person must choose
 * outdated  the server was updated since the window was opened: it must be loaded anew
 * refused   the server will not take this change: a person must choose
 */
export type SaveState = 'saved' | 'saving' | 'waiting' | 'failing' | 'stale' | 'outdated' | 'refused';

export interface SaverOptions {
  revision: number;
  send: (base: number, entries: LogEntry[]) => Promise<number>;
  /** Keeps what is not saved yet where it outlives the window. Says whether there was room. */
  keep: (outbox: Outbox) => boolean;
  onState: (state: SaveState, reason?: string) => void;
  /** Milliseconds before a failed save is tried again. */
  retryAfter?: number;
}

/** Sends entries of the log to the server in order, one request at a time. */
export interface Saver {
  push: (entry: LogEntry, scene: Scene) => void;
  /** Settles once everything pushed so far is saved; rejects when a person must choose first. */
  flush: () => Promise<void>;
  /** Takes up what an earlier window left unsaved. Says whether it is kept here now. */
  resume: (work: { base: number; entries: LogEntry[]; scene: Scene }) => boolean;
  /** Tries at once to save what waits. */
  wake: () => void;
  /** From now on it says how it goes; a saver begins so. */
  start: () => void;
  /** Sends what is left, but waits for nothing any more and says nothing. */
  stop: () => void;
}

/** Most entries of one request, and most characters of it but for one entry that has more. */
const BATCH = { entries: 50, characters: 1e6 } as const;

/** How often a server that fails is asked before a person is told. */
const TRIES = 3;

/** Whether what the server says may be otherwise in a while: it is gone, busy, or out of room. */
const canPass = ({ status }: ApiError) => [0, 408, 429, 503, 507].includes(status);

const NO_ROOM = 'This browser has no room to keep it: leave this window open until it is saved.';

/** As many of the first entries as one request takes. */
function batchOf(entries: readonly LogEntry[]): LogEntry[] {
  let characters = 0;
  const size = entries.findIndex((entry, i) => {
    characters += JSON.stringify(entry).length;
    return i > 0 && (i >= BATCH.entries || characters > BATCH.characters);
  });
  return size < 0 ? [...entries] : entries.slice(0, size);
}

export function createSaver({ revision, send, keep, onState, retryAfter = 2000 }: SaverOptions): Saver {
  let base = revision;
  let entries: LogEntry[] = [];
  let scene: Scene | undefined;
  let busy = false;
  let stopped = false;
  let stuck: ApiError | undefined;
  let failures = 0;
  let isKept = true;
  let retry: ReturnType<typeof setTimeout> | undefined;
  let waiters: { resolve: () => void; reject: (reason: Error) => void }[] = [];

  const settle = (tell: (waiter: (typeof waiters)[number]) => void) => {
    waiters.forEach(tell);
    waiters = [];
  };
  const say = (state: SaveState, reason?: string) => {
    if (!stopped) onState(state, reason);
  };
  const keepAll = () => {
    isKept = keep(currentOutbox(base, entries, scene!));
  };

  async function work(): Promise<void> {
    if (busy || stuck) return;
    busy = true;
    clearTimeout(retry);
    try {
      while (entries.length > 0) {
        say('saving');
        const batch = batchOf(entries);
        base = await send(base, batch);
        failures = 0;
        entries = entries.slice(batch.length);
        keepAll();
      }
      say('saved');
      settle(({ resolve }) => resolve());
    } catch (error) {
      failed(error instanceof ApiError ? error : new ApiError(500, 'fault', String(error)));
    } finally {
      busy = false;
    }
  }

  function failed(error: ApiError): void {
    const reason = isKept ? error.message : `${error.message} ${NO_ROOM}`;
    if (!canPass(error) && error.status < 500) {
      stuck = error;
      const isChoice = error.code === 'stale' || error.code === 'outdated';
      say(isChoice ? error.code : 'refused', reason);
      return settle((waiter) => waiter.reject(error));
    }
    if (!canPass(error) && ++failures >= TRIES) {
      failures = 0;
      say('failing', reason);
      return settle((waiter) => waiter.reject(error));
    }
    say('waiting', reason);
    if (!stopped) retry = setTimeout(() => void work(), retryAfter);
  }

  return {
    push(entry, next) {
      entries = [...entries, entry];
      scene = next;
      keepAll();
      void work();
    },
    flush() {
      if (stuck) return Promise.reject(stuck);
      if (entries.length === 0) return Promise.resolve();
      const done = new Promise<void>((resolve, reject) => waiters.push({ resolve, reject }));
      void work();
      return done;
    },
    resume(left) {
      ({ base, entries, scene } = left);
      keepAll();
      void work();
      return isKept;
    },
    wake() {
      if (entries.length > 0) void work();
    },
    start() {
      stopped = false;
      if (entries.length > 0) void work();
    },
    stop() {
      stopped = true;
      clearTimeout(retry);
    },
  };
}
