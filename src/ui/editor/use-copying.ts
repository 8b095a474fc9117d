import { notifications } from '@mantine/notifications';
import { useHotkeys } from 'react-hotkeys-hook';
import { pasteFixtures } from '@/core/scene/many-commands';
import { copyOf, keepCopied, pasteInto, readCopied } from '@/state/actions/clipboard';
import { chosenIds } from '../steps/fixtures/fixtures-view';
import { useSession } from './editor-context';
import { EVERYWHERE } from './key-options';

/** Copying and pasting fixtures, also between scenes. */
export function useCopying(): { copy: () => void; paste: () => void } {
  const { scene: store, view } = useSession();
  const say = (message: string) => void notifications.show({ color: 'yellow', message });

  function copy(): void {
    const ids = chosenIds(view.getState());
    if (ids.length === 0) return say('Choose a fixture in the picture first.');
    keepCopied(copyOf(store.getState().scene, ids));
    notifications.show({ message: ids.length === 1 ? 'Copied.' : `${ids.length} fixtures copied.` });
  }

  function paste(): void {
    const { scene, run } = store.getState();
    const copied = readCopied(scene);
    if (!copied) return say('Nothing was copied yet. Choose fixtures, then copy them with Ctrl+C.');
    const { fixtures, circuits, differs } = pasteInto(scene, copied);
    if (fixtures.length === 0) return say('This scene is full. Remove a fixture to paste another.');
    run(pasteFixtures(fixtures, circuits));
    const [first, ...others] = fixtures.map(({ id }) => id);
    view.getState().set({ step: 'fixtures', chosen: first, also: others });
    if (differs) say('This ground plan is another: what was pasted hangs as high over the ground as it did.');
  }

  return { copy, paste };
}

export function useCopyingKeys(): void {
  const { copy, paste } = useCopying();
  useHotkeys('mod+c', copy, { ...EVERYWHERE, enabled: () => !window.getSelection()?.toString() });
  useHotkeys('mod+v', paste, EVERYWHERE);
}
