interface Remembering<T> {
  (key: string): Promise<T>;
  set: (key: string, value: T) => void;
}

/** Keeps the last result of an asynchronous function; a failed one is not kept. */
export function rememberLast<T>(make: (key: string) => Promise<T>): Remembering<T> {
  let last: { key: string; value: Promise<T> } | undefined;
  const remembering = (key: string) => {
    if (last?.key === key) return last.value;
    const value = make(key);
    const entry = { key, value };
    last = entry;
    value.catch(() => {
      if (last === entry) last = undefined;
    });
    return value;
  };
  return Object.assign(remembering, {
    set: (key: string, value: T) => {
      last = { key, value: Promise.resolve(value) };
    },
  });
}
