import { useEffect } from 'react';
import { useStore } from 'zustand';
import { isAbort } from '@/engine/aborted';
import { glintMarks, type GlintMark } from '@/state/actions/lens-actions';
import { useScene, useSession, useView } from '../../editor/editor-context';
import type { LensView } from './lens-view';

/** Keeps the view's list of sources up to date while they are looked at. */
export function useFoundGlints(isOpen: boolean): void {
  const { readout } = useSession();
  const scene = useScene((state) => state.scene);
  const setView = useView((view) => view.set);
  const find = useStore(readout, ({ glints }) => glints);
  useEffect(() => {
    if (!isOpen) return;
    let isOver = false;
    void find?.(scene)
      .then((glints) => {
        if (!isOver) setView({ glints });
      })
      .catch((error: Error) => {
        if (!isAbort(error)) console.error(error);
      });
    return () => {
      isOver = true;
    };
  }, [isOpen, find, scene, setView]);
}

/** All sources as they are marked. */
export function useGlintMarks(): GlintMark[] {
  const lens = useScene(({ scene }) => scene.lens);
  const plate = useScene(({ scene }) => scene.plate);
  const glints = useView((view) => view.glints);
  return glintMarks({ lens, plate }, glints);
}

/** Whether a mark is chosen, alone or with others. */
export const isChosen = (
  mark: GlintMark,
  { glint, glintsAlso }: Pick<LensView, 'glint' | 'glintsAlso'>,
): boolean => isAt(mark, glint) || glintsAlso.some((at) => isAt(mark, at));

/** Whether a mark stands at a place. */
export const isAt = ({ at }: GlintMark, place: GlintMark['at'] | undefined): boolean =>
  place !== undefined && Math.hypot(at.u - place.u, at.v - place.v) < 1e-3;
