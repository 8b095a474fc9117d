import { createStore } from 'zustand/vanilla';
import type { SceneActions, SceneState, SceneStore } from './scene-store';

/** How often it follows what is dragged elsewhere, milliseconds. */
const EVERY = 200;

/**
 * A scene as it is shown beside the picture: it follows the scene at once, but only now and then what is dragged elsewhere, so that all there
 * is goes into the picture's frames. A drag that is held by its own `hold` it follows at once.
 */
export function calmScene(scene: SceneStore): { calm: SceneStore; follow: () => () => void } {
  let isOwn = false;
  const hold = () => {
    // It ends another drag first.
    scene.getState().hold();
    isOwn = true;
  };
  const shown = (): SceneState & SceneActions => ({ ...scene.getState(), hold });
  const calm = createStore(shown);

  function follow(): () => void {
    let later: ReturnType<typeof setTimeout> | undefined;
    const catchUp = () => {
      clearTimeout(later);
      later = undefined;
      calm.setState(shown(), true);
    };
    catchUp();
    const stop = scene.subscribe((now, before) => {
      const isElsewhere = now.held && before.held && !isOwn;
      if (!now.held) isOwn = false;
      if (!isElsewhere) catchUp();
      else later ??= setTimeout(catchUp, EVERY);
    });
    return () => {
      clearTimeout(later);
      later = undefined;
      stop();
    };
  }
  return { calm, follow };
}
