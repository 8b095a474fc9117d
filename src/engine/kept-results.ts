/** What a stage has made, apart from the arena: its planes by name, and what was found beside them, plain data. */
export interface KeptResult {
  planes: Record<string, Float32Array<ArrayBuffer>>;
  facts: unknown;
}

/** Keeps results of lasting stages by key, from one renderer to the next. What it does not find is made. */
export interface KeptResults {
  find: (key: string) => Promise<KeptResult | undefined>;
  /** Takes a copy for itself; nobody waits until it is kept. */
  keep: (key: string, result: KeptResult) => void;
  /** Says that what was not found is not made after all. */
  forgo: (key: string) => void;
}

/** A packed result's head: its planes' names and lengths, and what was found beside them. */
interface Head {
  lengths: Record<string, number>;
  facts: unknown;
}

const WORD = 4;

/** A result in one piece: bytes of its head, the head as JSON, filled up to whole words, and the planes one behind the other. */
export function packResult({ planes, facts }: KeptResult): Uint8Array<ArrayBuffer> {
  const lengths = Object.fromEntries(Object.entries(planes).map(([name, { length }]) => [name, length]));
  const head = new TextEncoder().encode(JSON.stringify({ lengths, facts } satisfies Head));
  const first = WORD * Math.ceil(head.length / WORD) + WORD;
  const floats = Object.values(planes).reduce((sum, { length }) => sum + length, 0);
  const bytes = new Uint8Array(first + 4 * floats);
  new DataView(bytes.buffer).setUint32(0, head.length, true);
  bytes.set(head, WORD);
  let end = first;
  for (const plane of Object.values(planes)) {
    bytes.set(new Uint8Array(plane.buffer, plane.byteOffset, plane.byteLength), end);
    end += plane.byteLength;
  }
  return bytes;
}

/** The result in a packed one; undefined where it is cut short or none. */
export function unpackResult(bytes: ArrayBuffer): KeptResult | undefined {
  try {
    const length = new DataView(bytes).getUint32(0, true);
    const head = new TextDecoder().decode(new Uint8Array(bytes, WORD, length));
    const { lengths, facts } = JSON.parse(head) as Head;
    let end = WORD * Math.ceil(length / WORD) + WORD;
    const planes = Object.entries(lengths).map(([name, floats]) => {
      const plane = new Float32Array(bytes, end, floats);
      end += plane.byteLength;
      return [name, plane] as const;
    });
    return end === bytes.byteLength ? { planes: Object.fromEntries(planes), facts } : undefined;
  } catch {
    return undefined;
  }
}
