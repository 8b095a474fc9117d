import { useHotkeys } from 'react-hotkeys-hook';
import { SLICES } from '../view/slices';
import { escaped } from '../view/view-store';
import { useScene, useSession, useView } from './editor-context';
import { EVERYWHERE, HISTORY } from './key-options';

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
  useHotkeys('escape', () => setView(escaped(SLICES)), EVERYWHERE);
}
