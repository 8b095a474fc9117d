import { notifications } from '@mantine/notifications';
import { useEffect, useRef, type RefObject } from 'react';
import { useStore } from 'zustand';
import { MOST_STROKE } from '@/core/fields/path';
import { isAbort } from '@/engine/aborted';
import type { TouchGroundPicture } from '@/engine/readouts/touch-ground';
import { laying, touchFull, touchToLay, withTouch } from '@/state/actions/touch-actions';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useStroke } from '../../picture/use-stroke';
import { whenShown } from '../../picture/when-shown';
import { createLiveTouch } from './live-touch';

interface Canvases {
  night: RefObject<HTMLCanvasElement | null>;
  live: RefObject<HTMLCanvasElement | null>;
}

/** The picture under the brush, made anew whenever the scene, the touch or what is shown has changed. */
function useGround() {
  const { readout } = useSession();
  const scene = useScene((state) => state.scene);
  const isMoving = useScene((state) => state.gesture !== undefined);
  const chosen = useView((view) => view.touch);
  const next = useView((view) => view.touchNext);
  const circuit = useView((view) => view.circuit);
  const look = useView((view) => view.look);
  const find = useStore(readout, ({ touchGround }) => touchGround);
  const ground = useRef<Promise<TouchGroundPicture | undefined>>(undefined);
  useEffect(() => {
    if (isMoving || !find) return;
    const lay = touchToLay(scene, chosen, next, circuit);
    ground.current = find(withTouch(scene, lay), lay.touch).catch((error: Error) => {
      if (!isAbort(error)) console.error(error);
      return undefined;
    });
  }, [find, scene, isMoving, chosen, next, circuit, look]);
  return ground;
}

/** Strokes of light on the picture: their light follows the brush. */
export function useTouchStroke({ night, live }: Canvases) {
  const { scene: store, view } = useSession();
  const ground = useGround();
  const drawing = useRef<{ path: readonly number[]; touch?: ReturnType<typeof createLiveTouch> }>(undefined);

  /** Lays a stroke along a path of places and pressures. */
  function lay(path: number[]): boolean {
    const { touch: chosen, touchNext, touchBrush, circuit, set } = view.getState();
    const { scene, run } = store.getState();
    const to = touchToLay(scene, chosen, touchNext, circuit);
    const full = touchFull(scene, to, path.length / 3);
    if (full) {
      notifications.show({ color: 'yellow', title: 'No more can be laid on', message: full });
      return false;
    }
    run(laying(to, { ...touchBrush, path: path.slice(0, 3 * MOST_STROKE) }));
    set({ touch: to.touch.id });
    return true;
  }

  function begin(path: readonly number[]): void {
    drawing.current?.touch?.clear();
    const own: NonNullable<typeof drawing.current> = (drawing.current = { path });
    const { touch: chosen, touchNext, touchBrush, circuit } = view.getState();
    const { touch } = touchToLay(store.getState().scene, chosen, touchNext, circuit);
    void ground.current?.then((found) => {
      if (!found || drawing.current !== own || !live.current) return;
      own.touch = createLiveTouch(live.current, found, touch, touchBrush);
      own.touch.draw(own.path);
    });
  }

  function end(): void {
    const done = drawing.current;
    whenShown(night.current, () => drawing.current === done && done?.touch?.clear());
  }

  const gestures = useStroke({
    onPart(path) {
      if (path.length === 3) return begin(path);
      if (drawing.current) drawing.current.path = path;
      drawing.current?.touch?.draw(path);
    },
    onEnd(path) {
      if (lay(path)) end();
      else drawing.current?.touch?.clear();
    },
    onGiveUp: () => drawing.current?.touch?.clear(),
  });
  return { gestures, dab: lay };
}
