import { rowsOf, type Region } from '@/core/plane/region';
import type { InputRefs, LoadedRef, MadeRefs, Rows } from './task';

/** What a stage has made, as the core takes it: its planes by name, row-major floats of its region, and what was found beside them. */
export type View<Name extends string = never, Facts = unknown> = Record<Name, Float32Array> & {
  width: number;
  height: number;
  region: Region;
  facts: Facts;
};

/** Views in the order and by the names that a stage asked for them. */
export type InputViews = View | undefined | InputViews[] | { [name: string]: InputViews };

const isMade = (refs: InputRefs): refs is MadeRefs => !!refs && 'planes' in refs && 'region' in refs;

/** A plane in a shared memory. */
export const floatsAt = (memory: WebAssembly.Memory, { at, length }: MadeRefs['planes'][string]) =>
  new Float32Array(memory.buffer, at, length);

/** A result's planes in a shared memory. Valid until the engine lets its blocks go. */
export function viewOf(memory: WebAssembly.Memory, { region, planes, facts }: MadeRefs): View {
  const { width, height } = region;
  const floats = Object.entries(planes).map(([name, ref]) => [name, floatsAt(memory, ref)] as const);
  return { ...Object.fromEntries(floats), width, height, region, facts };
}

/** Inputs with their planes. */
export function viewsOf(memory: WebAssembly.Memory, refs: InputRefs): InputViews {
  if (refs === undefined) return undefined;
  if (isMade(refs)) return viewOf(memory, refs);
  if (Array.isArray(refs)) return refs.map((one) => viewsOf(memory, one as InputRefs));
  return Object.fromEntries(Object.entries(refs).map(([name, one]) => [name, viewsOf(memory, one)]));
}

const ARRAYS = { Uint8Array, Uint16Array, Float32Array } as const;

/** What was loaded from a file. */
export const loadedIn = (memory: WebAssembly.Memory, { at, length, type }: LoadedRef) =>
  new ARRAYS[type](memory.buffer, at, length);

/** Some rows of a region that one worker fills. */
export interface Band {
  rows: Rows;
  /** The rows as a region. */
  region: Region;
  /** First pixel, and how many. */
  first: number;
  count: number;
  /** The band's part of a plane of the whole region. */
  cut: (plane: Float32Array) => Float32Array;
  /** The band's part of a view of the whole region. Planes of any other length than its region's stay whole. */
  of: <V extends View>(view: V) => V;
}

export function bandOf(region: Region, rows: Rows): Band {
  const part = rowsOf(region, rows.from, rows.to - rows.from);
  const first = rows.from * region.width;
  const count = part.width * part.height;
  const pixels = region.width * region.height;
  const cut = (plane: Float32Array) => plane.subarray(first, first + count);
  return {
    ...{ rows, region: part, first, count, cut },
    of: <V extends View>(view: V) => {
      const planes = Object.entries(view).map(([name, value]: [string, unknown]) =>
        value instanceof Float32Array && value.length === pixels ? [name, cut(value)] : [name, value],
      );
      return { ...(Object.fromEntries(planes) as V), region: part, width: part.width, height: part.height };
    },
  };
}
