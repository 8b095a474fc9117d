import { tonesInside } from '@/engine/readouts/inside';
import { tonesBeneath } from '@/engine/readouts/beneath';
import { coverageOf } from '@/engine/readouts/coverage';
import { glintsOf } from '@/engine/readouts/glints';
import { hungIn } from '@/engine/readouts/hung';
import { landOf } from '@/engine/readouts/land';
import { placesIn } from '@/engine/readouts/places';
import { luxAt } from '@/engine/readouts/lux';
import { toneRangeOf } from '@/engine/readouts/tone-range';
import { touchGroundOf } from '@/engine/readouts/touch-ground';
import { useEffect, useRef, type RefObject } from 'react';
import { parseCube } from '@/core/grade/cube-lut';
import { toneHistogram, type ToneHistogram } from '@/core/picture/tone-histogram';
import { regionKey, type Region } from '@/core/plane/region';
import { createRenderer } from '@/engine/renderer';
import { api } from '@/state/session/api';
import { onReturn } from '@/state/session/connection';
import { newestOf } from '@/state/session/newest-of';
import { MEMORY, type Engine } from '@/state/work/engine';
import { createKeptFrames } from '@/state/work/kept-frames';
import { createKeptResults } from '@/state/work/kept-results';
import { createPreview, type Paint, type Preview } from '@/state/work/preview';
import type { Readout, ReadoutStore } from '@/state/work/readout-store';
import type { Scene } from '@/core/scene/schema';
import type { EditorSession } from '../editor/editor-context';
import type { Asked } from '../view/slice';
import { SLICES } from '../view/slices';
import { createPainter, type PictureCanvases } from './picture-painter';

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

function startPreview(
  { arena, pool }: Engine,
  sceneId: string,
  /** The file of the plate: its day is painted. */
  plate: string,
  canvases: PictureCanvases,
  readout: ReadoutStore,
  isFitted: (region: Region) => boolean,
  /** The part of the plate that is shown. */
  regionShown: () => Region,
  onFault: (error: Error) => void,
): Preview {
  const days = new Map<string, ToneHistogram>();
  const { paint, paintDay } = createPainter(canvases);
  const renderer = createRenderer(
    arena,
    pool,
    {
      async codes(asset, region, signal) {
        const codes = await api.plateCodes(sceneId, asset, region, signal);
        if (asset !== plate) return codes;
        const day = paintDay(codes, region);
        days.set(regionKey(region), toneHistogram(day));
        return codes;
      },
      lut: async (asset, signal) => parseCube(await api.lutText(sceneId, asset, signal)),
      coverage: (asset, signal) => api.coverage(sceneId, asset, signal),
      results: createKeptResults(),
    },
    MEMORY.kept,
  );
  let [isMaking, hanging] = [false, 0];
  const tellBusy = () => {
    canvases.night.dataset.busy = String(isMaking || hanging > 0);
  };
  const onBusy = (busy: boolean) => {
    isMaking = busy;
    tellBusy();
  };
  /** What becomes of a click on a lamp is seen once this is known: the picture is busy until then. */
  const hang: Readout['hung'] = async (scene, lamp) => {
    hanging++;
    tellBusy();
    try {
      return await renderer.read(hungIn(scene, lamp), lasting.signal);
    } finally {
      hanging--;
      tellBusy();
    }
  };
  const show: Paint = (pixels, region, isCoarse) => {
    paint(pixels, region, isCoarse);
    if (!isFitted(region)) return;
    const day = days.get(regionKey(region)) ?? readout.getState().day;
    readout.setState({ night: toneHistogram(pixels), day });
  };
  const lasting = new AbortController();
  readout.setState({
    toneRange: (scene) => renderer.read(toneRangeOf(scene), lasting.signal),
    lux: newestOf((signal, scene, at) =>
      renderer.read(luxAt(scene, at), AbortSignal.any([signal, lasting.signal])),
    ),
    hung: hang,
    land: (scene) => renderer.read(landOf(scene), lasting.signal),
    places: newestOf((signal, scene) =>
      renderer.read(placesIn(scene), AbortSignal.any([signal, lasting.signal])),
    ),
    glints: newestOf((signal, scene) =>
      renderer.read(glintsOf(scene), AbortSignal.any([signal, lasting.signal])),
    ),
    touchGround: newestOf((signal, scene, touch) =>
      renderer.read(
        touchGroundOf({ scene, region: regionShown() }, touch),
        AbortSignal.any([signal, lasting.signal]),
      ),
    ),
    beneath: (scene, circuit) => renderer.read(tonesBeneath(scene, circuit), lasting.signal),
    inside: (scene, outline) => renderer.read(tonesInside(scene, outline), lasting.signal),
    coverage: (scene, matte) => renderer.read(coverageOf(scene, matte), lasting.signal),
  });
  const preview = createPreview(renderer, show, onBusy, onFault, createKeptFrames(sceneId));
  return {
    show: preview.show,
    stop() {
      readout.setState({
        toneRange: undefined,
        lux: undefined,
        coverage: undefined,
        hung: undefined,
        land: undefined,
        beneath: undefined,
        inside: undefined,
        places: undefined,
        glints: undefined,
        touchGround: undefined,
      });
      lasting.abort();
      preview.stop();
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
    const regionShown = () => wanted.current!.region;
    const { id, scene } = session.scene.getState();
    const preview = startPreview(
      session.takeEngine(),
      id,
      scene.plate.asset,
      elements,
      session.readout,
      isFitted,
      regionShown,
      onFault,
    );
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
