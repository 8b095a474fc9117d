import { useEffect, useRef, type RefObject } from 'react';
import { toneHistogram } from '@/core/picture/tone-histogram';
import type { Region } from '@/core/plane/region';
import { createArena } from '@/engine/arena';
import { createBrowserPool } from '@/engine/browser-pool';
import { createRenderer } from '@/engine/renderer';
import { api } from '@/state/api';
import type { OpenedSession } from '@/state/open-session';
import { createPreview, type Paint, type Preview } from '@/state/preview';
import type { ReadoutStore } from '@/state/readout-store';
import { createPainter, isWhole, type PictureCanvases } from './picture-painter';

const MEBIBYTE = 2 ** 20;
const MEMORY = { most: 1024 * MEBIBYTE, kept: 512 * MEBIBYTE };

interface PreviewOptions {
  session: OpenedSession;
  canvases: Record<keyof PictureCanvases, RefObject<HTMLCanvasElement | null>>;
  /** What is to be computed; undefined while the size of the view is not known. */
  regions: { region: Region; coarse: Region } | undefined;
  onFault: (error: Error) => void;
}

function startPreview(
  canvases: PictureCanvases,
  readout: ReadoutStore,
  onFault: (error: Error) => void,
): Preview {
  const { paint, paintDay } = createPainter(canvases);
  const arena = createArena(MEMORY.most);
  const renderer = createRenderer(
    arena,
    createBrowserPool(arena),
    async (asset, region, signal) => {
      const codes = await api.plateCodes(asset, region, signal);
      const day = paintDay(codes, region);
      if (day) readout.setState({ day: toneHistogram(day) });
      return codes;
    },
    MEMORY.kept,
  );
  const onBusy = (busy: boolean) => {
    canvases.night.dataset.busy = String(busy);
  };
  const show: Paint = (pixels, region, isCoarse) => {
    paint(pixels, region, isCoarse);
    if (isWhole(region)) readout.setState({ night: toneHistogram(pixels) });
  };
  return createPreview(renderer, show, onBusy, onFault);
}

/** Keeps the picture up with the scene for as long as it is on the screen. */
export function usePreview({ session, canvases, regions, onFault }: PreviewOptions): void {
  const show = useRef<() => void>(null);
  const wanted = useRef(regions);
  const { night, coarse, day, dayPart } = canvases;
  useEffect(() => {
    const elements = {
      night: night.current!,
      coarse: coarse.current!,
      day: day.current!,
      dayPart: dayPart.current!,
    };
    const preview = startPreview(elements, session.readout, onFault);
    show.current = () => {
      const { scene } = session.scene.getState();
      const { moving, surveyAt } = session.view.getState();
      if (wanted.current) preview.show({ scene, ...wanted.current, moving, surveyAt });
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
  }, [session, night, coarse, day, dayPart, onFault]);

  useEffect(() => {
    wanted.current = regions;
    show.current?.();
  }, [regions]);
}
