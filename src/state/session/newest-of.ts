/**
 * Asks only for the newest of what changes quickly: each call gives up the one before it, by the signal that it got.
 */
export function newestOf<Args extends unknown[], T>(
  ask: (signal: AbortSignal, ...args: Args) => Promise<T>,
): (...args: Args) => Promise<T> {
  let older = new AbortController();
  return (...args) => {
    older.abort();
    older = new AbortController();
    return ask(older.signal, ...args);
  };
}
