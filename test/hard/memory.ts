import { readFile, writeFile } from 'node:fs/promises';

/** The most memory that a process has held since it started, or since it was last forgotten, MiB; Linux. */
export async function peakMemory(pid: number): Promise<number> {
  const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '');
  return Number(/VmHWM:\s*(\d+) kB/.exec(status)?.[1] ?? 0) / 1024;
}

/** Forgets the peak of a process, so that the next one is of what comes. */
export const forgetPeak = (pid: number): Promise<void> =>
  writeFile(`/proc/${pid}/clear_refs`, '5').catch(() => {});
