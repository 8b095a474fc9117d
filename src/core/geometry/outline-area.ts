import type { PlatePoint } from './camera';

/** The area of an outline whose sides do not cross, share of the plate (shoelace formula). */
export const outlineArea = (path: readonly PlatePoint[]): number =>
  Math.abs(
    path.reduce((sum, { u, v }, i) => {
      const next = path[(i + 1) % path.length];
      return sum + u * next.v - next.u * v;
    }, 0),
  ) / 2;
