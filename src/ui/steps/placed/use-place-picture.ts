import { useState } from 'react';
import { MOST_PLACED } from '@/core/placed/placed-schema';
import type { PlatePoint } from '@/core/geometry/camera';
import { addPlaced } from '@/core/scene/placed-commands';
import { newPlaced } from '@/state/actions/placed-actions';
import { api } from '@/state/session/api';
import { smallCopyOf } from '@/state/work/small-copy';
import { useScene, useSession, useView } from '../../editor/editor-context';

/** Where a picture is placed that was not dropped on the photo. */
const MIDDLE: PlatePoint = { u: 0.5, v: 0.8 };

/** Takes pictures in and places them. */
export function usePlacePicture() {
  const id = useScene((state) => state.id);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const { scene: store } = useSession();
  const [fault, setFault] = useState<string>();
  const [note, setNote] = useState<string>();
  const [taking, setTaking] = useState(false);

  async function take(file: File | undefined, at: PlatePoint = MIDDLE): Promise<void> {
    if (!file) return;
    setFault(undefined);
    setNote(undefined);
    if (store.getState().scene.placed.length >= MOST_PLACED) {
      return setFault(`A scene holds ${MOST_PLACED} placed pictures. Remove one to place another.`);
    }
    setTaking(true);
    let under = true;
    void smallCopyOf(file).then((copy) => {
      if (copy && under) setView({ arriving: { name: file.name, copy, at } });
    });
    try {
      const picture = await api.takePlaced(id, file);
      setNote(picture.note);
      const placed = newPlaced(store.getState().scene, picture, file.name, at);
      run(addPlaced(placed));
      setView({ placed: placed.id, cutting: picture.alpha === undefined });
    } catch (error) {
      setFault(`${file.name}: ${(error as Error).message}`);
    } finally {
      under = false;
      setView({ arriving: undefined });
      setTaking(false);
    }
  }

  return { take, taking, fault, note };
}
