import type { KeptResult, KeptResults } from '@/engine/kept-results';
import { createKeptStore } from './kept-store';

/** Most results that are kept, the newest: of some two megabytes each. */
const MOST = 48;

const TOLD = 'x-result';

/** A result's names and lengths, and what was found beside the planes. */
interface Told {
  lengths: Record<string, number>;
  facts: unknown;
}

const addressOf = (key: string) => `/kept-results/${encodeURIComponent(key)}`;

function fileOf({ planes, facts }: KeptResult): Response {
  const lengths = Object.fromEntries(Object.entries(planes).map(([name, { length }]) => [name, length]));
  const told = encodeURIComponent(JSON.stringify({ lengths, facts } satisfies Told));
  return new Response(new Blob(Object.values(planes)), { headers: { [TOLD]: told } });
}

async function resultIn(file: Response): Promise<KeptResult | undefined> {
  const { lengths, facts } = JSON.parse(decodeURIComponent(file.headers.get(TOLD)!)) as Told;
  const floats = new Float32Array(await file.arrayBuffer());
  let end = 0;
  const planes = Object.entries(lengths).map(
    ([name, length]) => [name, floats.subarray(end, (end += length))] as const,
  );
  return end === floats.length ? { planes: Object.fromEntries(planes), facts } : undefined;
}

/** Results of stages in the browser's own store. */
export function createKeptResults(): KeptResults {
  const store = createKeptStore('results', MOST);
  return {
    async find(key) {
      const file = await store.find(addressOf(key));
      return file && resultIn(file).catch(() => undefined);
    },
    keep: (key, result) => void store.keep(addressOf(key), fileOf(result)),
  };
}
