import type { TableOff } from '@/core/output/night-table';

/** A scene that was begun, and what a person should know of how its photo was read. */
export interface Begun {
  id: string;
  note?: string;
}

/** A moment of a scene that was given a name. */
export interface Moment {
  id: string;
  name: string;
}

/** A night as the text of a `.cube` file, how far it is off, and what is not in it. */
export interface NightTable {
  text: string;
  off: TableOff;
  missing: string[];
}

/** A picture on its way out, as the server tells of it. */
export interface OutputProgress {
  id: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  /** How many go before it, while it waits. */
  ahead?: number;
  progress: number;
  fileName: string;
  bytes?: number;
  reason?: string;
}
