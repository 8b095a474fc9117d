/** What a function makes of an object that never changes in place, made once. */
export type Memo = <Value extends object, Made>(make: (value: Value) => Made, value: Value) => Made;

/** A memo that holds on to nothing: with an object goes what was made of it. */
export function createMemo(): Memo {
  const known = new WeakMap<object, WeakMap<object, unknown>>();
  return <Value extends object, Made>(make: (value: Value) => Made, value: Value) => {
    const made = known.get(make) ?? new WeakMap<object, unknown>();
    known.set(make, made);
    if (!made.has(value)) made.set(value, make(value));
    return made.get(value) as Made;
  };
}
