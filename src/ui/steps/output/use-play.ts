import { useEffect, type RefObject } from 'react';
import { readySwitching, switchedAt } from '@/core/output/switching';
import { useScene, useView } from '../../editor/editor-context';
import { whenShown } from '../../picture/when-shown';
import { NO_PLAY } from './output-view';

/**
 * Plays a switching-on in the picture, in its own time, as fast as pictures come. It begins when the light of everything that comes on is
 * there, so that each picture is but a mix. A change to the scene ends it.
 */
export function usePlay(night: RefObject<HTMLCanvasElement | null>): void {
  const scene = useScene((state) => state.scene);
  const set = useView((view) => view.set);
  const playing = useView((view) => view.playing);
  useEffect(() => {
    if (!playing) return;
    const ready = readySwitching(scene, playing);
    const all = ready.frames + playing.hold * playing.fps;
    let timer = 0;
    let isOver = false;
    const begin = () => {
      const began = performance.now();
      let shown = -1;
      const next = () => {
        if (isOver) return;
        const frame = Math.floor(((performance.now() - began) / 1000) * playing.fps);
        if (frame >= all) return set(NO_PLAY);
        if (frame !== shown && frame < ready.frames) set({ trial: switchedAt(ready, (shown = frame)) });
        timer = requestAnimationFrame(next);
      };
      next();
    };
    set({ trial: switchedAt(ready, ready.frames - 1) });
    whenShown(night.current, begin);
    return () => {
      isOver = true;
      cancelAnimationFrame(timer);
      set(NO_PLAY);
    };
  }, [playing, scene, set, night]);
}
