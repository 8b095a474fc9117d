import type { PlatePoint } from './camera';

/** The points of a path that holds u, v; u, v ... */
export const pointsOf = (path: readonly number[]): PlatePoint[] =>
  path.flatMap((u, i) => (i % 2 === 0 ? [{ u, v: path[i + 1] }] : []));
