'use client';

import { useMemo, type RefObject } from 'react';
import { useStore } from 'zustand';
import type { PlatePoint } from '@/core/geometry/camera';
import { stopsFromGrey } from '@/core/picture/read-tone';
import { useScene, useSession } from '../editor/editor-context';
import { useRead } from './use-read';
import classes from './picture.module.css';

export interface ProbeProps {
  at: PlatePoint;
  /** Canvases to read, the topmost first; each lies where its style says on the plate. */
  night: RefObject<HTMLCanvasElement | null>[];
  day: RefObject<HTMLCanvasElement | null>[];
}

/** The pixel of the topmost canvas that covers a place of the plate. */
function pixelAt(canvases: ProbeProps['night'], { u, v }: PlatePoint): number[] | undefined {
  for (const { current: canvas } of canvases) {
    if (!canvas || canvas.style.display === 'none') continue;
    const part = (name: 'left' | 'top' | 'width' | 'height') => parseFloat(canvas.style[name]) / 100;
    const x = Math.floor(((u - part('left')) / part('width')) * canvas.width);
    const y = Math.floor(((v - part('top')) / part('height')) * canvas.height);
    if (!(x >= 0 && y >= 0 && x < canvas.width && y < canvas.height)) continue;
    return [...canvas.getContext('2d')!.getImageData(x, y, 1, 1).data.slice(0, 3)];
  }
  return undefined;
}

const stops = ([r, g, b]: number[]) => {
  const value = stopsFromGrey(r, g, b);
  return Number.isFinite(value) ? `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}` : 'black';
};

const luxText = (lux: number) => `${lux >= 100 ? lux.toFixed(0) : lux.toPrecision(2)} lx`;

/** What the picture holds under the pointer. */
export function Probe({ at, night, day }: ProbeProps) {
  const { readout } = useSession();
  const scene = useScene((state) => state.scene);
  const read = useStore(readout, ({ lux }) => lux);
  // A new frame is a new readout: the values are read again.
  useStore(readout, (now) => now.night);
  const lux = useRead(useMemo(() => read && (() => read(scene, at)), [read, scene, at]));
  const [shown, was] = [pixelAt(night, at), pixelAt(day, at)];
  return (
    <dl className={classes.probe} data-testid="probe">
      <dt>day</dt>
      <dd>{was ? `${was.join(' ')}, ${stops(was)}` : '…'}</dd>
      <dt>night</dt>
      <dd>{shown ? `${shown.join(' ')}, ${stops(shown)}` : '…'}</dd>
      <dt>light</dt>
      <dd>{lux === undefined ? '…' : luxText(lux)}</dd>
    </dl>
  );
}
