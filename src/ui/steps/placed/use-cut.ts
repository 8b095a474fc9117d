import { pointsOf } from '@/core/geometry/points-of';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { EdgeStroke, Pass } from '@/core/matte/pass';
import { MOST_PASSES } from '@/core/matte/matte-schema';
import { FIRST_CUT, WHOLE_BODY, type PlacedCut } from '@/core/placed/placed-schema';
import type { Plane } from '@/core/plane/plane';
import { wholeRegion } from '@/core/plane/region';
import { setPlaced } from '@/core/scene/placed-commands';
import type { Placed } from '@/core/scene/schema';
import { isAbort } from '@/engine/aborted';
import { previewSize } from '@/engine/sizes';
import { api } from '@/state/session/api';
import { createSegmenter, type Segmenter } from '@/state/work/segmenter';
import { cutResult } from '@/state/work/cut-coverage';
import { useScene } from '../../editor/editor-context';

/** Width at which a picture is shown while it is cut out, pixels. */
const WIDTH = 800;

/** What a stroke does: what the edge brush does, or an exact line that keeps or cuts away what is inside. */
export type CutTool = EdgeStroke['act'] | 'keep' | 'away';

/** A placed picture as it is cut out: its colours, what is left of it, and what strokes do to that. */
export function useCut(placed: Placed) {
  const run = useScene((state) => state.run);
  const { cut, id, name } = placed;
  const passes = useMemo(() => cut?.passes ?? [], [cut]);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string>();
  const segmenter = useSegmenterOf(placed);
  const picture = usePictureOf(placed, setFault);
  const { left, leaves } = useLeft(placed, passes, setFault);

  /** Takes passes for the cut, unless they leave nothing. */
  async function take(next: PlacedCut['passes']): Promise<void> {
    const { body } = await leaves(next);
    if (!body) return setFault('That leaves nothing of the picture. Draw around what should stand.');
    run(setPlaced(`Cut out ${name}`, id, { cut: { ...(cut ?? FIRST_CUT), passes: next }, body }));
  }

  async function stroke(tool: CutTool, places: number[], size: number): Promise<void> {
    setFault(undefined);
    setBusy(true);
    try {
      if (tool === 'keep' || tool === 'away') await take([...passes, outlineOf(tool, places)]);
      else await take(await brushed(segmenter, passes, { act: tool, path: places, size }));
    } catch (error) {
      if (!isAbort(error)) setFault((error as Error).message);
    } finally {
      setBusy(false);
    }
  }

  async function startOver(): Promise<void> {
    setFault(undefined);
    const { body } = await leaves([]);
    run(setPlaced(`All of ${name}`, id, { cut: undefined, body: body ?? WHOLE_BODY }));
  }

  const isFull = passes.length >= MOST_PASSES;
  return { picture, left, busy, fault, isFull, isCut: passes.length > 0, stroke, startOver };
}

/** What finds edges in a placed picture, for as long as it is cut. */
function useSegmenterOf({ asset, width, height }: Placed): Segmenter {
  const sceneId = useScene((state) => state.id);
  const segmenter = useMemo(
    () => createSegmenter(sceneId, { asset, width, height }),
    [sceneId, asset, width, height],
  );
  useEffect(() => {
    segmenter.warm();
    return () => segmenter.cancel();
  }, [segmenter]);
  return segmenter;
}

/** The colours of a placed picture, once they are there. */
function usePictureOf({ asset, width, height }: Placed, onFault: (reason: string) => void) {
  const sceneId = useScene((state) => state.id);
  const [picture, setPicture] = useState<ImageData>();
  useEffect(() => {
    const giveUp = new AbortController();
    const size = previewSize({ width, height }, WIDTH);
    api
      .plateCodes(sceneId, asset, wholeRegion(size.width, size.height), giveUp.signal)
      .then((codes) => {
        const rgba = new Uint8ClampedArray(4 * size.width * size.height).fill(255);
        for (let i = 0, k = 0; k < codes.length; i += 4, k += 3)
          rgba.set([codes[k] >> 8, codes[k + 1] >> 8, codes[k + 2] >> 8], i);
        setPicture(new ImageData(rgba, size.width, size.height));
      })
      .catch((error: Error) => !isAbort(error) && onFault(error.message));
    return () => giveUp.abort();
  }, [sceneId, asset, width, height, onFault]);
  return picture;
}

/** What is left of a placed picture by its passes; `leaves` tells it of other ones. */
function useLeft(placed: Placed, passes: PlacedCut['passes'], onFault: (reason: string) => void) {
  const sceneId = useScene((state) => state.id);
  const { alpha, width, height } = placed;
  const [left, setLeft] = useState<Plane>();
  const leaves = useCallback(
    (some: PlacedCut['passes']) =>
      cutResult({ alpha, width, height }, some, (one) => api.coverage(sceneId, one)),
    [sceneId, alpha, width, height],
  );
  useEffect(() => {
    let isLatest = true;
    leaves(passes)
      .then(({ coverage }) => isLatest && setLeft(coverage))
      .catch((error: Error) => isLatest && onFault(error.message));
    return () => {
      isLatest = false;
    };
  }, [leaves, passes, onFault]);
  return { left, leaves };
}

/** The passes with a stroke of the edge brush in the last of them, or in one of its own. */
async function brushed(segmenter: Segmenter, passes: Pass[], drawn: EdgeStroke): Promise<Pass[]> {
  const last = passes.at(-1);
  const known = last?.kind === 'edge' ? last : undefined;
  const found = await segmenter.brush(known?.asset, [drawn]);
  if (known) {
    return [...passes.slice(0, -1), { ...known, strokes: [...known.strokes, drawn], asset: found }];
  }
  // A first stroke that leaves out begins from all of the picture.
  const join = drawn.act === 'leave' ? 'subtract' : 'add';
  return [...passes, { id: crypto.randomUUID(), kind: 'edge', join, strokes: [drawn], asset: found }];
}

/** A closed line through places, that keeps or cuts away what is inside. */
const outlineOf = (tool: 'keep' | 'away', places: number[]): Pass => ({
  ...{ id: crypto.randomUUID(), kind: 'outline', join: tool === 'keep' ? 'add' : 'subtract' },
  points: pointsOf(places),
});
