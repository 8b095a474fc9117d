import { digest } from './digest';

/** Names a value by what it holds: the same text for the same content. */
export type Tell = (value: unknown) => string;

/**
 * A teller that remembers what it said of every object. A document changes by new objects only, so of a changed one it reads no
 * more than what is new. Values are plain data: no functions, no cycles.
 */
export function createTell(): Tell {
  const known = new WeakMap<object, string>();
  return function tell(value) {
    if (typeof value === 'string') return JSON.stringify(value);
    if (typeof value !== 'object' || value === null) return String(value);
    const found = known.get(value);
    if (found !== undefined) return found;
    const text = digest(
      Array.isArray(value)
        ? `[${value.map(tell).join()}]`
        : `{${Object.entries(value)
            .map(([name, part]) => `${JSON.stringify(name)}:${tell(part)}`)
            .join()}}`,
    );
    known.set(value, text);
    return text;
  };
}
