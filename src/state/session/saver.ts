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
  push(entry: LogEntry, scene: Scene): void;
  /** Settles once everything pushed so far is saved; rejects when a person must choose first. */
  flush(): Promise<void>;
  /** Takes up what an earlier window left unsaved. Says whether it is kept here now. */
  resume(work: { base: number; entries: LogEntry[]; scene: Scene }): boolean;
  /** Tries at once to save what waits. */
  wake(): void;
  /** From now on it says how it goes; a saver begins so. */
  start(): void;
  /** Sends what is left, but waits for nothing any more and says nothing. */
  stop(): void;
}

/** Most entries of one request, and most characters of it but for one entry that has more. */
const BATCH = { entries: 50, characters: 1e6 } as const;

/** Milliseconds before a failed save is tried again, unless told. */
const RETRY_AFTER = 2000;

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

export const createSaver = (options: SaverOptions): Saver => new LogSaver(options);

interface Waiter {
  resolve: () => void;
  reject: (reason: Error) => void;
}

class LogSaver implements Saver {
  private base: number;
  private entries: LogEntry[] = [];
  private scene?: Scene;
  private busy = false;
  private stopped = false;
  private stuck?: ApiError;
  private failures = 0;
  private isKept = true;
  private retry?: ReturnType<typeof setTimeout>;
  private waiters: Waiter[] = [];

  constructor(private readonly options: SaverOptions) {
    this.base = options.revision;
  }

  push(entry: LogEntry, scene: Scene): void {
    this.entries = [...this.entries, entry];
    this.scene = scene;
    this.keepAll();
    void this.work();
  }

  flush(): Promise<void> {
    if (this.stuck) return Promise.reject(this.stuck);
    if (this.entries.length === 0) return Promise.resolve();
    const done = new Promise<void>((resolve, reject) => this.waiters.push({ resolve, reject }));
    void this.work();
    return done;
  }

  resume({ base, entries, scene }: { base: number; entries: LogEntry[]; scene: Scene }): boolean {
    [this.base, this.entries, this.scene] = [base, entries, scene];
    this.keepAll();
    void this.work();
    return this.isKept;
  }

  wake(): void {
    if (this.entries.length > 0) void this.work();
  }

  start(): void {
    this.stopped = false;
    this.wake();
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.retry);
  }

  private async work(): Promise<void> {
    if (this.busy || this.stuck) return;
    this.busy = true;
    clearTimeout(this.retry);
    try {
      while (this.entries.length > 0) {
        this.say('saving');
        const batch = batchOf(this.entries);
        this.base = await this.options.send(this.base, batch);
        this.failures = 0;
        this.entries = this.entries.slice(batch.length);
        this.keepAll();
      }
      this.say('saved');
      this.settle(({ resolve }) => resolve());
    } catch (error) {
      this.failed(error instanceof ApiError ? error : new ApiError(500, 'fault', String(error)));
    } finally {
      this.busy = false;
    }
  }

  private failed(error: ApiError): void {
    const reason = this.isKept ? error.message : `${error.message} ${NO_ROOM}`;
    if (!canPass(error) && error.status < 500) {
      this.stuck = error;
      const isChoice = error.code === 'stale' || error.code === 'outdated';
      this.say(isChoice ? error.code : 'refused', reason);
      return this.settle((waiter) => waiter.reject(error));
    }
    if (!canPass(error) && ++this.failures >= TRIES) {
      this.failures = 0;
      this.say('failing', reason);
      return this.settle((waiter) => waiter.reject(error));
    }
    this.say('waiting', reason);
    const { retryAfter = RETRY_AFTER } = this.options;
    if (!this.stopped) this.retry = setTimeout(() => void this.work(), retryAfter);
  }

  private keepAll(): void {
    this.isKept = this.options.keep(currentOutbox(this.base, this.entries, this.scene!));
  }

  private say(state: SaveState, reason?: string): void {
    if (!this.stopped) this.options.onState(state, reason);
  }

  private settle(tell: (waiter: Waiter) => void): void {
    this.waiters.forEach(tell);
    this.waiters = [];
  }
}
