import type { Region } from '@/core/plane/region';

/** Byte offset of a plane in the arena. */
export type PlaneRef = number;

/** Rows of a region, counted from its top. */
export interface Rows {
  from: number;
  to: number;
}

/** Where a plane lies: byte offset and number of floats. */
export interface FloatsRef {
  at: PlaneRef;
  length: number;
}

/** What a stage has made, as it crosses to a worker: plain data. */
export interface MadeRefs {
  region: Region;
  planes: Record<string, FloatsRef>;
  /** What was found beside the planes. */
  facts: unknown;
}

/** Results of other stages as a stage named them: one, none, or several in a list or by name. */
export type InputRefs = MadeRefs | undefined | readonly InputRefs[] | { [name: string]: InputRefs };

/** Bytes from a file, laid out in the arena. */
export interface LoadedRef {
  at: PlaneRef;
  length: number;
  type: 'Uint8Array' | 'Uint16Array' | 'Float32Array';
}

/** Rows of one stage's work, for one worker: plain data, planes as offsets into the shared arena. */
export interface Task {
  stage: string;
  rows: Rows;
  out: MadeRefs;
  inputs: InputRefs;
  settings: unknown;
  prepared: unknown;
  loaded?: LoadedRef;
}
