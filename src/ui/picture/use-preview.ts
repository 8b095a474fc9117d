import { useEffect, type RefObject } from 'react';
import { createArena } from '@/engine/arena';
import { createBrowserPool } from '@/engine/browser-pool';
import { createRenderer } from '@/engine/renderer';
import { api } from '@/state/api';
import { createPreview } from '@/state/preview';
import type { OpenedSession } from '@/state/open-session';
import { createPainter } from './picture-painter';

const MEBIBYTE = 2 ** 20;
const MEMORY = { most: 1024 * MEBIBYTE, kept: 512 * MEBIBYTE };

interface PreviewOptions {
  session: OpenedSession;
  night: RefObject<HTMLCanvasElement | null>;
  day: RefObject<HTMLCanvasElement | null>;
  /** Device pixels across; 0 while it is not known. */
  viewWidth: number;
  onFault: (error: Error) => void;
}

/** Keeps the picture up with the scene for as long as it is on the screen. */
export function usePreview({ session, night, day, viewWidth, onFault }: PreviewOptions): void {
  const known = viewWidth > 0;
  useEffect(() => {
    if (!known) return;
    const canvas = night.current!;
    const painter = createPainter(canvas, day.current!);
    const arena = createArena(MEMORY.most);
    const renderer = createRenderer(
      arena,
      createBrowserPool(arena.memory),
      async (asset, size, signal) => {
        const codes = await api.plateCodes(asset, size.width, size.height, signal);
        painter.paintDay(codes, size);
        return codes;
      },
      MEMORY.kept,
    );
    const preview = createPreview(
      renderer,
      painter.paint,
      (busy) => {
        canvas.dataset.busy = String(busy);
      },
      onFault,
    );
    const show = () => {
      const { scene } = session.scene.getState();
      preview.show({ scene, viewWidth: Number(canvas.dataset.viewWidth), moving: session.view.getState().moving });
    };
    const stopScene = session.scene.subscribe((now, before) => {
      if (now.scene !== before.scene) show();
    });
    const stopView = session.view.subscribe((now, before) => {
      if (now.moving !== before.moving) show();
    });
    canvas.addEventListener('viewchange', show);
    show();
    return () => {
      canvas.removeEventListener('viewchange', show);
      stopScene();
      stopView();
      preview.stop();
    };
  }, [session, night, day, known, onFault]);

  useEffect(() => {
    const canvas = night.current!;
    canvas.dataset.viewWidth = String(viewWidth);
    canvas.dispatchEvent(new Event('viewchange'));
  }, [night, viewWidth]);
}
