import { useHotkeys } from 'react-hotkeys-hook';
import { RANGES } from '@/core/fields/ranges';
import { useScene, useSession, useView } from './editor-context';
import { EVERYWHERE, HISTORY } from './key-options';

/** How many times larger or smaller a bracket makes the brush. */
const BRUSH_STEP = 1.15;

/** Keys that count everywhere in the editor, but for fields that are being typed in. */
export function useEditorKeys(): void {
  const undo = useScene((state) => state.undo);
  const redo = useScene((state) => state.redo);
  const setView = useView((view) => view.set);
  const { view } = useSession();
  const held = { ...EVERYWHERE, keydown: true, keyup: true };
  useHotkeys('mod+z', undo, HISTORY);
  useHotkeys('mod+shift+z, mod+y', redo, HISTORY);
  useHotkeys('d', (event) => setView({ day: event.type === 'keydown' }), held);
  useHotkeys('v', () => setView({ probing: !view.getState().probing }), EVERYWHERE);
  const resize = (times: number) => {
    const { step, brush } = view.getState();
    if (step !== 'mattes') return;
    const { min, max } = RANGES.brush;
    setView({ brush: { ...brush, size: Math.min(max, Math.max(min, brush.size * times)) } });
  };
  useHotkeys('bracketleft', () => resize(1 / BRUSH_STEP), EVERYWHERE);
  useHotkeys('bracketright', () => resize(BRUSH_STEP), EVERYWHERE);
  useHotkeys(
    'escape',
    () =>
      setView({
        ...{ chosen: undefined, picking: false, drawing: undefined, popUp: false },
        ...{ parallel: undefined, measured: undefined, guess: undefined },
        ...{ twins: undefined, rowing: undefined, buildUp: undefined },
      }),
    EVERYWHERE,
  );
}
