import type { Random } from './random';

/** Bytes with a few of them changed, taken out, said twice, or cut off. */
export function mutatedBytes(bytes: Uint8Array, random: Random): Uint8Array {
  let out = Buffer.from(bytes);
  for (let n = 1 + random.below(4); n > 0 && out.length > 1; n--) {
    const at = random.below(out.length);
    const length = Math.min(out.length - at, 1 + random.below(40));
    const way = random.below(5);
    if (way === 0) out[at] = random.below(256);
    else if (way === 1) out = Buffer.concat([out.subarray(0, at), out.subarray(at + length)]);
    else if (way === 2) out = Buffer.concat([out.subarray(0, at + length), out.subarray(at)]);
    else if (way === 3) out.fill(random.pick([0, 255]), at, at + length);
    else out = out.subarray(0, at);
  }
  return out;
}

const ODD: readonly unknown[] = [
  ...[null, true, -1, 1e308, 4294967295, '', 'x', '__proto__', [], {}, [[]], [null], 'x'.repeat(10_000)],
  ...[{ length: 4e9 }, { __proto__: null }, [1, 2, 3], '0'.repeat(64), Number.MIN_VALUE, { constructor: 1 }],
];

/** A value with one of its parts, at any depth, made something else, or left out. */
export function mutatedValue(value: unknown, random: Random): unknown {
  if (typeof value !== 'object' || value === null || random.below(6) === 0) return random.pick(ODD);
  const entries = Object.entries(value) as [string, unknown][];
  if (entries.length === 0) return random.pick(ODD);
  const [chosen] = random.pick(entries);
  const changed = entries.flatMap(([key, part]) => {
    if (key !== chosen) return [[key, part] as const];
    return random.below(8) === 0 ? [] : [[key, mutatedValue(part, random)] as const];
  });
  return Array.isArray(value) ? changed.map(([, part]) => part) : Object.fromEntries(changed);
}
