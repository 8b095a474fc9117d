import type { PlatePoint } from './camera';

/** The pieces of a path, which begins anew at some of its points. Starts outside of it, and those at its beginning, count for none. */
export function pathPieces(path: readonly PlatePoint[], starts: readonly number[]): PlatePoint[][] {
  const all = [0, ...starts.filter((at) => at > 0 && at < path.length)].sort((a, b) => a - b);
  return all.map((from, k) => path.slice(from, all[k + 1]));
}
