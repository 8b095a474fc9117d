import { useHotkeys } from 'react-hotkeys-hook';
import { RANGES } from '@/core/fields/ranges';
import { useSession } from '../../editor/editor-context';
import { EVERYWHERE } from '../../editor/key-options';

/** How many times larger or smaller a bracket makes the brush. */
const BRUSH_STEP = 1.15;

/** Brackets make the brush smaller and larger. */
export function useBrushKeys(): void {
  const { view } = useSession();
  const resize = (times: number) => {
    const { brush, set } = view.getState();
    const { min, max } = RANGES.brush;
    set({ brush: { ...brush, size: Math.min(max, Math.max(min, brush.size * times)) } });
  };
  useHotkeys('bracketleft', () => resize(1 / BRUSH_STEP), EVERYWHERE);
  useHotkeys('bracketright', () => resize(BRUSH_STEP), EVERYWHERE);
}
