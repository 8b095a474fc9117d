import { useHotkeys } from 'react-hotkeys-hook';
import { useScene, useView } from './editor-context';

/** A fader counts as a form field for the library; keys count there all the same. */
const FADERS = ['slider'] as const;

/** Keys that count everywhere in the editor, but for fields that are being typed in. */
export function useEditorKeys(): void {
  const undo = useScene((state) => state.undo);
  const redo = useScene((state) => state.redo);
  const setView = useView((view) => view.set);
  useHotkeys('mod+z', undo, { preventDefault: true, enableOnFormTags: FADERS });
  useHotkeys('mod+shift+z, mod+y', redo, { preventDefault: true, enableOnFormTags: FADERS });
  useHotkeys('d', (event) => setView({ day: event.type === 'keydown' }), {
    keydown: true,
    keyup: true,
    enableOnFormTags: FADERS,
  });
  useHotkeys('escape', () => setView({ chosen: undefined, picking: false }), { enableOnFormTags: FADERS });
}
