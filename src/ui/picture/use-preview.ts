import { useEffect, useRef, type RefObject } from 'react';
import { createArena } from '@/engine/arena';
import { createBrowserPool } from '@/engine/browser-pool';
import { createRenderer } from '@/engine/renderer';
import { api } from '@/state/api';
import type { OpenedSession } from '@/state/open-session';
import { createPreview, type Preview } from '@/state/preview';
import { createPainter, type PictureCanvases } from './picture-painter';

const MEBIBYTE = 2 ** 20;
const MEMORY = { most: 1024 * MEBIBYTE, kept: 512 * MEBIBYTE };

interface PreviewOptions {
  session: OpenedSession;
  night: RefObject<HTMLCanvasElement | null>;
  coarse: RefObject<HTMLCanvasElement | null>;
  day: RefObject<HTMLCanvasElement | null>;
  /** Device pixels across; 0 while it is not known. */
  viewWidth: number;
  onFault: (error: Error) => void;
}

function startPreview(canvases: PictureCanvases, onFault: (error: Error) => void): Preview {
  const { paint, paintDay } = createPainter(canvases);
  const arena = createArena(MEMORY.most);
  const renderer = createRenderer(
    arena,
    createBrowserPool(arena),
    async (asset, size, signal) => {
      const codes = await api.plateCodes(asset, size.width, size.height, signal);
      paintDay(codes, size);
      return codes;
    },
    MEMORY.kept,
  );
  const onBusy = (busy: boolean) => {
    canvases.night.dataset.busy = String(busy);
  };
  return createPreview(renderer, paint, onBusy, onFault);
}

/** Keeps the picture up with the scene for as long as it is on the screen. */
export function usePreview({ session, night, coarse, day, viewWidth, onFault }: PreviewOptions): void {
  const show = useRef<() => void>(null);
  const width = useRef(0);
  useEffect(() => {
    const preview = startPreview(
      { night: night.current!, coarse: coarse.current!, day: day.current! },
      onFault,
    );
    show.current = () => {
      const { scene } = session.scene.getState();
      const { moving, surveyAt } = session.view.getState();
      if (width.current > 0) preview.show({ scene, viewWidth: width.current, moving, surveyAt });
    };
    const stopScene = session.scene.subscribe((now, before) => {
      if (now.scene !== before.scene) show.current?.();
    });
    const stopView = session.view.subscribe((now, before) => {
      if (now.moving !== before.moving || now.surveyAt !== before.surveyAt) show.current?.();
    });
    show.current();
    return () => {
      stopScene();
      stopView();
      preview.stop();
    };
  }, [session, night, coarse, day, onFault]);

  useEffect(() => {
    width.current = viewWidth;
    show.current?.();
  }, [viewWidth]);
}
