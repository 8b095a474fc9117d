import type { LogEntry } from '@/core/scene/history';
import type { Scene } from '@/core/scene/schema';

/** What a window has not got saved yet. It outlives the window. */
export interface Outbox {
  /** Revision on which the first entry builds. */
  base: number;
  entries: LogEntry[];
  /** The document with all entries in it. */
  scene: Scene;
}

const keyOf = (sceneId: string) => `sundew:outbox:${sceneId}`;

/** Keeps unsaved entries in the browser's storage; a storage that is full or closed is passed over. */
export const outboxStore = {
  read(sceneId: string): Outbox | undefined {
    try {
      const text = localStorage.getItem(keyOf(sceneId));
      return text ? (JSON.parse(text) as Outbox) : undefined;
    } catch {
      return undefined;
    }
  },
  write(sceneId: string, outbox: Outbox): void {
    try {
      if (outbox.entries.length === 0) localStorage.removeItem(keyOf(sceneId));
      else localStorage.setItem(keyOf(sceneId), JSON.stringify(outbox));
    } catch {
      // The server will have them a moment later; nothing is lost unless it fails too.
    }
  },
};
