/** Median time of some runs of a task, milliseconds, after one run that is not counted. */
export async function medianTime(runs: number, task: () => unknown): Promise<number> {
  await task();
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await task();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[runs >> 1];
}

/** Milliseconds of a task that is done once. */
export async function once(task: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await task();
  return performance.now() - start;
}

/** One line of the report. */
export function report(name: string, milliseconds: number, ratio?: { to: string; of: number }): void {
  const against = ratio ? `${(milliseconds / ratio.of).toFixed(2).padStart(8)} x ${ratio.to}` : '';
  console.log(`${name.padEnd(52)} ${milliseconds.toFixed(2).padStart(9)} ms ${against}`);
}
