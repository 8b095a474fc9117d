/** Files that the browser keeps from one visit to the next, for this build alone: another one may make another picture. */
export interface KeptStore {
  find: (address: string) => Promise<Response | undefined>;
  /** Keeps a file in place of the one of that address; of all of them only the newest stay. */
  keep: (address: string, file: Response) => Promise<void>;
}

/**
 * A store of at most `most` files. What other builds kept under the same name is let go. Whatever goes wrong there - a full disk, a window
 * that keeps nothing - there just is no file.
 */
export function createKeptStore(name: string, most: number): KeptStore {
  const stem = `${name} of `;
  const own = `${stem}${process.env.SUNDEW_BUILD ?? ''}`;

  async function open(): Promise<Cache> {
    for (const other of await caches.keys()) {
      if (other.startsWith(stem) && other !== own) await caches.delete(other);
    }
    return caches.open(own);
  }

  let opened: Promise<Cache> | undefined;
  const store = () => (opened ??= open());

  return {
    async find(address) {
      try {
        return await (await store()).match(address);
      } catch {
        return undefined;
      }
    },
    async keep(address, file) {
      try {
        const files = await store();
        await files.delete(address);
        await files.put(address, file);
        const [...all] = await files.keys();
        for (const old of all.slice(0, Math.max(0, all.length - most))) await files.delete(old);
      } catch {
        // The next visit computes it again.
      }
    },
  };
}
