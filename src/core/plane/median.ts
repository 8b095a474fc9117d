/** The middle one of some values; of an even number the upper of both. NaN of none. */
export const median = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[values.length >> 1] ?? NaN;
