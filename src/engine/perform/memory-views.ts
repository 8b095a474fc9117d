import type { Relief } from '@/core/plan/relief';
import { rowsOf, type Region } from '@/core/plane/region';
import type { LineRefs, PlaneRef, PlateRefs, ReliefRefs, Rows } from '../task';

/** Planes of a shared memory as the core takes them. `first` counts floats. */
export function createViews(memory: WebAssembly.Memory) {
  const floats = (at: PlaneRef, count: number, first = 0) =>
    new Float32Array(memory.buffer, at + 4 * first, count);
  return {
    memory,
    floats,
    plateAt: (refs: PlateRefs, width: number, height: number, first = 0) => ({
      width,
      height,
      r: floats(refs.r, width * height, first),
      g: floats(refs.g, width * height, first),
      b: floats(refs.b, width * height, first),
    }),
    lineAt: ({ slope, offset }: LineRefs, count: number) => ({
      slope: floats(slope, count),
      offset: floats(offset, count),
    }),
    reliefAt: (refs: ReliefRefs, count: number, first: number): Relief => ({
      reach: floats(refs.reach, count, first),
      normalX: floats(refs.normalX, count, first),
      normalY: floats(refs.normalY, count, first),
      normalZ: floats(refs.normalZ, count, first),
      unturned: floats(refs.unturned, count, first),
      land: floats(refs.land, count, first),
      distance: floats(refs.distance, count, first),
      sheen: floats(refs.sheen, count, first),
      alpha: floats(refs.alpha, count, first),
    }),
    /** Rows of a region as a region, and which of its pixels they are. */
    band: (region: Region, rows: Rows) => {
      const part = rowsOf(region, rows.from, rows.to - rows.from);
      return { part, first: rows.from * region.width, count: part.width * part.height };
    },
  };
}

export type Views = ReturnType<typeof createViews>;
