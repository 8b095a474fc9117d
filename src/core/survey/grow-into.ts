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
