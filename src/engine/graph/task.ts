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

/** One stage's work: plain data, planes as offsets into the shared arena. */
export interface Piece {
  stage: string;
  out: MadeRefs;
  inputs: InputRefs;
  /** What was prepared, or the settings. */
  prepared: unknown;
  loaded?: LoadedRef;
}

/** Rows of some stages' work, one after the other, for one worker. The last is the stage that was asked for. */
export interface Task {
  rows: Rows;
  pieces: Piece[];
  /** Where workers that share the rows count those that are taken. */
  taken?: PlaneRef;
}

/** The count of rows that are taken. */
export const takenAt = (memory: WebAssembly.Memory, at: PlaneRef) => new Int32Array(memory.buffer, at, 1);

/** What a task is for, in a word. */
export const taskName = ({ pieces }: Task): string => pieces[pieces.length - 1].stage;
