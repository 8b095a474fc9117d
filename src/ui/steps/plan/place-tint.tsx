'use client';

import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { isAbort } from '@/engine/aborted';
import { useScene, useSession } from '../../editor/editor-context';
import type { Box } from '../../picture/view-geometry';
import { tintedPlaces } from './place-tints';
import classes from '../../picture/picture.module.css';

/** What each place is taken for, as a tint over the picture. */
export function PlaceTint({ box }: { box: Box }) {
  const { scene: store, readout } = useSession();
  const plan = useScene(({ scene }) => scene.plan);
  const places = useStore(readout, (state) => state.places);
  const [tint, setTint] = useState<string>();
  useEffect(() => {
    let isOver = false;
    void places?.(store.getState().scene)
      .then(({ width, height, places: codes }) => {
        if (isOver) return;
        const canvas = document.createElement('canvas');
        Object.assign(canvas, { width, height });
        canvas.getContext('2d')!.putImageData(new ImageData(tintedPlaces(codes), width, height), 0, 0);
        setTint(canvas.toDataURL());
      })
      .catch((error: Error) => {
        if (!isAbort(error)) console.error(error);
      });
    return () => {
      isOver = true;
    };
  }, [places, plan, store]);
  if (!tint) return null;
  return (
    <image
      className={classes.placeTint}
      data-testid="place-tint"
      href={tint}
      width={box.width}
      height={box.height}
      preserveAspectRatio="none"
    />
  );
}
