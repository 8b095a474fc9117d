import { useHotkeys } from 'react-hotkeys-hook';
import { useScene, useView } from './editor-context';

/** Keys that count everywhere in the editor, but for fields that are being typed in. */
export function useEditorKeys(): void {
  const undo = useScene((state) => state.undo);
  const redo = useScene((state) => state.redo);
  const setView = useView((view) => view.set);
  useHotkeys('mod+z', undo, { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', redo, { preventDefault: true });
  useHotkeys('d', (event) => setView({ day: event.type === 'keydown' }), { keydown: true, keyup: true });
  useHotkeys('escape', () => setView({ chosen: undefined, picking: false }));
}
