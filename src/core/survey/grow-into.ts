/** Steps by which sky goes on to the edge at which it ends: pixels on it count as sharp. */
const OVER_EDGE = 2;

/** Grows by a pixel up, down and to the sides, where it may. */
export function growInto(is: Uint8Array, may: Uint8Array, width: number): void {
  const before = is.slice();
  for (let i = 0; i < is.length; i++) {
    if (before[i] || !may[i]) continue;
    const x = i % width;
    const beside = (x > 0 && before[i - 1]) || (x < width - 1 && before[i + 1]);
    if (beside || before[i - width] || before[i + width]) is[i] = 1;
  }
}

/** Lets sky go on to the edge at which it ends, where that is as pale. */
export function growOverEdge(sky: Uint8Array, pale: Uint8Array, width: number): void {
  for (let step = 0; step < OVER_EDGE; step++) growInto(sky, pale, width);
}
