import { notifications } from '@mantine/notifications';
import { useRef, type RefObject } from 'react';
import type { EdgeStroke, Pass } from '@/core/matte/pass';
import { MOST_STROKE } from '@/core/fields/path';
import type { OutlinePoint } from '@/core/geometry/flatten-outline';
import type { PlatePoint } from '@/core/geometry/camera';
import { addStroke, setPass } from '@/core/scene/matte-commands';
import { MOST_OUTLINE, MOST_PAINTED, MOST_STROKES } from '@/core/matte/matte-schema';
import type { Matte } from '@/core/scene/schema';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useFinding } from '../../editor/use-finding';
import { createLiveStroke } from './live-stroke';
import { drawWay } from '../../picture/draw-way';
import { pickColor } from '../../picture/pick-color';
import { usePictureDrag } from '../../picture/use-picture-drag';
import { useStroke } from '../../picture/use-stroke';
import { whenShown } from '../../picture/when-shown';

interface MatteGestures {
  day: RefObject<HTMLCanvasElement | null>;
  /** Over the picture: what is being painted. */
  live: RefObject<HTMLCanvasElement | null>;
  /** Over the picture: the path of the edge brush, and an edge that is being followed. */
  trail: RefObject<SVGPathElement | null>;
  night: RefObject<HTMLCanvasElement | null>;
}

function sayFull(what: string): void {
  notifications.show({
    color: 'yellow',
    title: `This pass is full`,
    message: `${what} Add another pass and go on there.`,
  });
}

/** The matte and the pass of it that the picture sets. */
export function useChosenPass(): { matte: Matte; pass: Pass } | undefined {
  const chosen = useView((view) => view.matte);
  const passId = useView((view) => view.pass);
  const matte = useScene(({ scene }) => scene.mattes.find(({ id }) => id === chosen));
  const pass = matte?.passes.find(({ id }) => id === passId);
  return matte && pass && { matte, pass };
}

/** What clicks and strokes on the picture do while mattes are made. */
export function useMatteGestures(stage: MatteGestures) {
  const chosen = useChosenPass();
  const edge = useEdgeStroke(stage, chosen);
  const paint = usePaintStroke(stage, chosen);
  const clicks = useClicks(stage, chosen);
  if (chosen?.pass.kind === 'edge') return edge;
  return chosen?.pass.kind === 'paint' ? paint : clicks;
}

type Chosen = ReturnType<typeof useChosenPass>;

/** Clicks that add points to an outline, or set the place or colour of a pass. */
function useClicks({ day, trail }: MatteGestures, chosen: Chosen) {
  const run = useScene((state) => state.run);
  const addPoint = usePointAdding(trail);
  const set = (label: string, values: Partial<Pass>) =>
    run(setPass(`${chosen!.matte.name}: ${label}`, chosen!.matte.id, chosen!.pass.id, values));
  return usePictureDrag({
    onDrag: () => {},
    onEnd: () => {},
    onClick(at, event) {
      const pass = chosen?.pass;
      if (pass?.kind === 'outline')
        void addPoint(pass.points, at, event.shiftKey).then((points) => points && set('point', { points }));
      if (pass?.kind === 'area') set('place', { at });
      if (pass?.kind === 'colour') set('colour', { color: pickColor(day.current!, at) });
    },
  });
}

/** Points of an outline with one more, or with all along the edges to it while it follows them. */
function usePointAdding(trail: MatteGestures['trail']) {
  const { segmenter } = useSession();
  const following = useView((view) => view.following);
  const find = useFinding();
  const traced = useRef<PlatePoint>(null);

  async function alongEdges(from: PlatePoint, to: PlatePoint): Promise<PlatePoint[]> {
    if (traced.current !== from) await segmenter.traceFrom(from);
    return segmenter.traceTo(to);
  }
  return async (points: OutlinePoint[], at: PlatePoint, straight: boolean) => {
    if (points.length >= MOST_OUTLINE) return sayFull(`An outline has at most ${MOST_OUTLINE} points.`);
    const from = points.at(-1);
    const fresh = following && !straight && from ? await find(() => alongEdges(from, at)) : [at];
    trail.current?.removeAttribute('d');
    if (!fresh) return;
    traced.current = null;
    return [...points, ...fresh].slice(0, MOST_OUTLINE);
  };
}

/** Strokes of the edge brush, or its loops. */
function useEdgeStroke({ trail }: MatteGestures, chosen: Chosen) {
  const { segmenter } = useSession();
  const run = useScene((state) => state.run);
  const { brush, edgeAct } = useView((view) => view);
  const find = useFinding();
  const isLoop = edgeAct === 'loop';

  async function end(path: number[]): Promise<void> {
    const pass = chosen?.pass;
    if (pass?.kind !== 'edge') return;
    if (pass.strokes.length >= MOST_STROKES) return sayFull(`It holds ${MOST_STROKES} strokes.`);
    const places = path.filter((_, i) => i % 3 < 2).slice(0, 2 * MOST_STROKE);
    const drawn: EdgeStroke = { act: edgeAct, path: places, size: brush.size };
    const asset = await find(() => segmenter.brush(pass.asset, [drawn]));
    trail.current?.removeAttribute('d');
    if (asset === undefined) return;
    run(addStroke(`${chosen!.matte.name}: edge brush`, chosen!.matte.id, pass.id, drawn, asset));
  }

  return useStroke({
    onPart: (path) =>
      drawWay(trail.current, path, isLoop, (width) => (isLoop ? 1.5 : 2 * brush.size * width)),
    onEnd: (path) => void end(path),
    onGiveUp: () => trail.current?.removeAttribute('d'),
  });
}

/** Strokes that paint or erase; the live one stands in until the picture shows it. */
function usePaintStroke({ live, night }: MatteGestures, chosen: Chosen) {
  const run = useScene((state) => state.run);
  const brush = useView((view) => view.brush);
  const stroke = useRef<ReturnType<typeof createLiveStroke>>(null);

  function end(path: number[]): void {
    const pass = chosen?.pass;
    if (pass?.kind !== 'paint') return;
    const painted = pass.strokes.reduce((sum, { path: { length } }) => sum + length / 3, path.length / 3);
    if (pass.strokes.length >= MOST_STROKES || painted > MOST_PAINTED) {
      stroke.current?.clear();
      return sayFull(`It holds ${MOST_STROKES} strokes.`);
    }
    const drawn = { ...brush, path: path.slice(0, 3 * MOST_STROKE) };
    const label = `${chosen!.matte.name}: ${brush.erase ? 'erase' : 'paint'}`;
    run(addStroke(label, chosen!.matte.id, pass.id, drawn));
    const done = stroke.current;
    whenShown(night.current, () => stroke.current === done && done?.clear());
  }

  return useStroke({
    onPart(path) {
      if (path.length === 3) {
        stroke.current?.clear();
        stroke.current = createLiveStroke(live.current!, brush);
      }
      stroke.current?.draw(path);
    },
    onEnd: end,
    onGiveUp: () => stroke.current?.clear(),
  });
}
