import type { Slice } from '../../view/slice';

/** Parts of the step; one is open at a time. */
export const NIGHT_PARTS = ['light', 'tones', 'byTone', 'lut', 'surround', 'haze'] as const;
export type NightPartName = (typeof NIGHT_PARTS)[number];

export interface NightView {
  nightPart?: NightPartName;
}

export const nightView: Slice<NightView> = { initial: { nightPart: 'light' } };
