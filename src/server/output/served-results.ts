import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { packResult, unpackResult, type KeptResults } from '@/engine/kept-results';
import { touch } from '../assets/asset-store';
import { keepCopy } from '../assets/keep-copy';

/** How long one waits for a result that is being made, milliseconds. */
const PATIENCE = 4000;

/** Results of the server's renderer: kept in its data folder, and handed to windows, whose own renderers ask for the same ones. */
export interface ServedResults extends KeptResults {
  /** A packed result: kept, or as soon as it is made where that is underway. Undefined where it is neither, or takes long. */
  take: (key: string) => Promise<Uint8Array<ArrayBuffer> | undefined>;
}

/** A result that is being made. */
interface Making {
  made: Promise<Uint8Array<ArrayBuffer> | undefined>;
  end: (packed?: Uint8Array<ArrayBuffer>) => void;
}

function begin(): Making {
  let end: Making['end'] = () => {};
  const made = new Promise<Uint8Array<ArrayBuffer> | undefined>((resolve) => (end = resolve));
  return { made, end };
}

/**
 * @param build names this build of the application: another one may come to other results. Without a name nothing is kept beyond what is
 * being made.
 */
export function createServedResults(
  dataDir: string,
  build = process.env.SUNDEW_BUILD,
  patience = PATIENCE,
): ServedResults {
  const making = new Map<string, Making>();
  const pathOf = (key: string) =>
    join(dataDir, 'results', createHash('sha256').update(`${build} ${key}`).digest('hex'));

  async function kept(key: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
    if (!build) return undefined;
    const found = await readFile(pathOf(key)).catch(() => undefined);
    if (!found) return undefined;
    await touch(pathOf(key));
    return new Uint8Array(found);
  }

  return {
    async find(key) {
      const one = making.get(key) ?? begin();
      making.set(key, one);
      const packed = await kept(key);
      const result = packed && unpackResult(packed.buffer);
      if (!result) return undefined;
      one.end(packed);
      making.delete(key);
      return result;
    },
    keep(key, result) {
      const packed = packResult(result);
      making.get(key)?.end(packed);
      const done = () => making.delete(key);
      if (build) void keepCopy(pathOf(key), packed).then(done, done);
      else done();
    },
    forgo(key) {
      making.get(key)?.end();
      making.delete(key);
    },
    async take(key) {
      const underway = making.get(key);
      if (!underway) return kept(key);
      const late = new Promise<undefined>((resolve) => setTimeout(resolve, patience, undefined).unref());
      return Promise.race([underway.made, late]);
    },
  };
}
