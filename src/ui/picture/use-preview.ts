import { useEffect, useRef, type RefObject } from 'react';
import { parseCube } from '@/core/grade/cube-lut';
import { toneHistogram, type ToneHistogram } from '@/core/picture/tone-histogram';
import { regionKey, type Region } from '@/core/plane/region';
import type { RenderAssets } from '@/engine/render-assets';
import { createRenderer } from '@/engine/renderer';
import { api } from '@/state/session/api';
import { onReturn } from '@/state/session/connection';
import { MEMORY, type Engine } from '@/state/work/engine';
import { createKeptFrames } from '@/state/work/kept-frames';
import { createKeptResults } from '@/state/work/kept-results';
import { createLoadAhead } from '@/state/work/load-ahead';
import { createPreview, type Paint, type Preview } from '@/state/work/preview';
import type { Scene } from '@/core/scene/schema';
import type { EditorSession } from '../editor/editor-context';
import type { Asked } from '../view/slice';
import { SLICES } from '../view/slices';
import { createPainter, type PictureCanvases } from './picture-painter';
import { readersOf } from './readouts';

/** What of the scene is shown for now. */
const shownScene = ({ scene, view }: EditorSession): Scene =>
  SLICES.reduce((now, { shows }) => shows?.(now, view.getState()) ?? now, scene.getState().scene);

/** What the view asks of a frame. */
const askedOf = ({ view }: EditorSession): Asked =>
  Object.assign({}, ...SLICES.map(({ asks }) => asks?.(view.getState()))) as Asked;

interface PreviewOptions {
  session: EditorSession;
  canvases: Record<keyof PictureCanvases, RefObject<HTMLCanvasElement | null>>;
  /** What is to be computed; undefined while the size of the view is not known. */
  regions: { region: Region; coarse: Region } | undefined;
  onFault: (error: Error) => void;
}

interface PreviewMeans {
  engine: Engine;
  session: EditorSession;
  canvases: PictureCanvases;
  /** Whether a region is that of the whole frame, of which readouts are told. */
  isFitted: (region: Region) => boolean;
  /** The part of the plate that is shown. */
  regionShown: () => Region;
  onFault: (error: Error) => void;
}

/** Shows a scene's picture, and lets be read what can be read off it. */
function startPreview({ engine, session, canvases, isFitted, regionShown, onFault }: PreviewMeans): Preview {
  const { readout } = session;
  const { id, scene } = session.scene.getState();
  const { paint, paintDay } = createPainter(canvases);
  const days = new Map<string, ToneHistogram>();
  const onDay = (codes: Uint16Array, region: Region) =>
    days.set(regionKey(region), toneHistogram(paintDay(codes, region)));
  const assets = assetsOf(id, scene.plate.asset, onDay);
  const ahead = createLoadAhead(assets.codes);
  const files = { ...assets, codes: ahead.codes };
  const renderer = createRenderer(engine.arena, engine.pool, files, MEMORY.kept);
  const lasting = new AbortController();
  const busy = busySign(canvases.night);
  const readers = readersOf(renderer, lasting.signal, regionShown);
  // What becomes of a click on a lamp is seen once this is known: the picture is busy until then.
  readout.setState({ ...readers, hung: (...asked) => busy.during(readers.hung(...asked)) });
  const show: Paint = (pixels, region, isCoarse) => {
    paint(pixels, region, isCoarse);
    if (!isFitted(region)) return;
    const day = days.get(regionKey(region)) ?? readout.getState().day;
    readout.setState({ night: toneHistogram(pixels), day });
  };
  const preview = createPreview(renderer, show, busy.making, onFault, createKeptFrames(id));
  return {
    show(wish) {
      ahead.begin(scene.plate.asset, wish.region, lasting.signal);
      preview.show(wish);
    },
    stop() {
      readout.setState(Object.fromEntries(Object.keys(readers).map((name) => [name, undefined])));
      lasting.abort();
      preview.stop();
    },
  };
}

/** The files of a scene, as the server hands them. `onDay` gets the codes of the plate itself. */
const assetsOf = (
  sceneId: string,
  plate: string,
  onDay: (codes: Uint16Array, region: Region) => void,
): RenderAssets => ({
  async codes(asset, region, signal) {
    const codes = await api.plateCodes(sceneId, asset, region, signal);
    if (asset === plate) onDay(codes, region);
    return codes;
  },
  lut: async (asset, signal) => parseCube(await api.lutText(sceneId, asset, signal)),
  coverage: (asset, signal) => api.coverage(sceneId, asset, signal),
  results: createKeptResults((key) => api.result(key)),
});

/** Says on a canvas whether its picture is still to change. */
function busySign({ dataset }: HTMLCanvasElement) {
  let [isMaking, others] = [false, 0];
  const tell = () => {
    dataset.busy = String(isMaking || others > 0);
  };
  return {
    making: (now: boolean) => {
      isMaking = now;
      tell();
    },
    during: <T>(work: Promise<T>): Promise<T> => {
      others++;
      tell();
      return work.finally(() => {
        others--;
        tell();
      });
    },
  };
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
    // Readouts are of the whole frame: looking closely at a part of it, or at a matte, does not change them.
    const isFitted = (region: Region) =>
      askedOf(session).show === undefined &&
      session.view.getState().look.zoom === 'fit' &&
      (region === wanted.current?.region || region === wanted.current?.coarse);
    const preview = startPreview({
      engine: session.takeEngine(),
      session,
      canvases: elements,
      isFitted,
      regionShown: () => wanted.current!.region,
      onFault,
    });
    show.current = () => {
      if (wanted.current)
        preview.show({ scene: shownScene(session), ...askedOf(session), ...wanted.current });
    };
    const stopScene = session.scene.subscribe((now, before) => {
      if (now.scene !== before.scene) show.current?.();
    });
    const told = () => [shownScene(session), JSON.stringify(askedOf(session))];
    let last = told();
    const stopView = session.view.subscribe(() => {
      const now = told();
      const same = now.every((part, i) => part === last[i]);
      last = now;
      if (!same) show.current?.();
    });
    // What could not be read while the server was gone is asked for again.
    const stopReturn = onReturn(() => show.current?.());
    show.current();
    return () => {
      stopReturn();
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
