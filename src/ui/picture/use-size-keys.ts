import { useHotkeys } from 'react-hotkeys-hook';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { EVERYWHERE } from '../editor/key-options';

/** How many times larger or smaller a bracket makes a brush. */
const STEP = 1.15;

/** Brackets make a brush smaller and larger. `onSize` gets what a size becomes. */
export function useSizeKeys(onSize: (sized: (size: number) => number) => void): void {
  const resize = (times: number) => onSize((size) => clampTo(size * times, RANGES.brush));
  useHotkeys('bracketleft', () => resize(1 / STEP), EVERYWHERE);
  useHotkeys('bracketright', () => resize(STEP), EVERYWHERE);
}
