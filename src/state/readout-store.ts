import { createStore, type StoreApi } from 'zustand/vanilla';
import type { ToneHistogram } from '@/core/picture/tone-histogram';

/** What is read off the picture as it stands. */
export interface Readout {
  day?: ToneHistogram;
  night?: ToneHistogram;
}

export type ReadoutStore = StoreApi<Readout>;

export const createReadoutStore = (): ReadoutStore => createStore<Readout>(() => ({}));
