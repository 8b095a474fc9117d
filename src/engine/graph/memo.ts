/** What a function makes of an object that never changes in place, made once. It may make parts of it by the same memo. */
export type Memo = <Value extends object, Made>(
  make: (value: Value, memo: Memo) => Made,
  value: Value,
) => Made;

/** A memo that holds on to nothing: with an object goes what was made of it. */
export function createMemo(): Memo {
  const known = new WeakMap<object, WeakMap<object, unknown>>();
  const memo: Memo = <Value extends object, Made>(make: (value: Value, memo: Memo) => Made, value: Value) => {
    const made = known.get(make) ?? new WeakMap<object, unknown>();
    known.set(make, made);
    if (!made.has(value)) made.set(value, make(value, memo));
    return made.get(value) as Made;
  };
  return memo;
}
