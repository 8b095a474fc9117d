import { packResult, unpackResult, type KeptResults } from '@/engine/kept-results';
import { createKeptStore } from './kept-store';

/** Most results that are kept, the newest: of some two megabytes each. */
const MOST = 48;

/** For so long after it was opened a scene's results are asked for elsewhere, milliseconds: later ones are made here at once. */
const OPENING = 15_000;

const addressOf = (key: string) => `/kept-results/${encodeURIComponent(key)}`;

/** Where else results may be had: packed ones. */
export type AskForResult = (key: string) => Promise<ArrayBuffer | undefined>;

/** Results of stages in the browser's own store; while a scene opens also those that `ask` gives. */
export function createKeptResults(ask: AskForResult, now = () => performance.now()): KeptResults {
  const store = createKeptStore('results', MOST);
  const opened = now();
  const keep = (key: string, packed: BufferSource) => void store.keep(addressOf(key), new Response(packed));
  return {
    async find(key) {
      const file = await store.find(addressOf(key));
      const own = file && unpackResult(await file.arrayBuffer());
      if (own || now() - opened > OPENING) return own;
      const packed = await ask(key).catch(() => undefined);
      const result = packed && unpackResult(packed);
      if (packed && result) keep(key, packed);
      return result;
    },
    keep: (key, result) => keep(key, packResult(result)),
    forgo: () => {},
  };
}
