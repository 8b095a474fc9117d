import { useEffect, useState } from 'react';
import type { ToneHistogram } from '@/core/picture/tone-histogram';
import { useSession } from '../editor/editor-context';

/** What is read off the picture, read anew whenever `read` or `shown` is another. Undefined until it is there. */
export function useRead<T>(read: (() => Promise<T>) | undefined, shown?: unknown): T | undefined {
  const [told, setTold] = useState<T>();
  useEffect(() => {
    let left = false;
    read?.().then(
      (value) => {
        if (!left) setTold(value);
      },
      () => {},
    );
    return () => {
      left = true;
    };
  }, [read, shown]);
  return told;
}

/**
 * The last frame that was shown while no pointer was down on a control, by its tones. What is read off the light of a scene is read anew
 * with it: while something is dragged, all there is goes into the frames.
 */
export function useFrameAtRest(): ToneHistogram | undefined {
  const { readout, scene } = useSession();
  const [frame, setFrame] = useState<ToneHistogram>();
  useEffect(() => {
    const look = () => {
      if (!scene.getState().held) setFrame(readout.getState().night);
    };
    look();
    const stops = [readout.subscribe(look), scene.subscribe(look)];
    return () => stops.forEach((stop) => stop());
  }, [readout, scene]);
  return frame;
}
