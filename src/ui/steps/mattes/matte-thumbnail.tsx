'use client';

import { useEffect, useRef } from 'react';
import { useStore } from 'zustand';
import type { Matte } from '@/core/scene/schema';
import { useScene, useSession } from '../../editor/editor-context';
import own from '../../worksheet/lists.module.css';

/** Rest before a thumbnail is made again, milliseconds: a drag changes a matte many times a second. */
const REST = 250;

/** What a matte covers, small. */
export function MatteThumbnail({ matte }: { matte: Matte }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const mattes = useScene(({ scene }) => scene.mattes);
  const { readout, scene } = useSession();
  const coverage = useStore(readout, (state) => state.coverage);
  useEffect(() => {
    let stopped = false;
    const wait = setTimeout(() => {
      coverage?.(scene.getState().scene, matte.id)
        .then(({ width, height, data }) => {
          if (stopped || !canvas.current) return;
          canvas.current.width = width;
          canvas.current.height = height;
          const image = new ImageData(width, height);
          data.forEach((value, i) => image.data.set([value, value, value, 255], 4 * i));
          canvas.current.getContext('2d')!.putImageData(image, 0, 0);
        })
        // Without a thumbnail the name still tells which it is; the picture itself says what went wrong.
        .catch(() => {});
    }, REST);
    return () => {
      stopped = true;
      clearTimeout(wait);
    };
  }, [coverage, scene, matte.id, mattes]);
  return <canvas ref={canvas} className={own.thumbnail} aria-hidden />;
}
