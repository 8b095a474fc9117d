import { useEffect, useRef, type RefObject } from 'react';
import { useStore } from 'zustand';
import type { PlatePoint } from '@/core/geometry/camera';
import { notifications } from '@mantine/notifications';
import { cameraOf } from '@/core/picture/camera-of';
import { seenHeight } from '@/core/plan/seen-height';
import { horizonThrough, vanishingPoint, type PlateLine } from '@/core/geometry/vanishing-point';
import { addSurface, setPlan, setSurface } from '@/core/scene/commands';
import { RANGES } from '@/core/fields/ranges';
import { MOST_CORNERS } from '@/core/plan/plan-schema';
import type { Scene } from '@/core/scene/schema';
import { newDeck, newWall, wallEnd } from '@/state/actions/plan-actions';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useFootEdges } from './use-foot-edges';
import { useSayStroke } from './use-say-stroke';
import { drawLine } from '../../picture/draw-way';
import { usePictureDrag } from '../../picture/use-picture-drag';

/** A drag that begins this near to a wall's end goes on from there, fraction of the plate's width. */
const NEAR = 0.015;

const NO_MEETING =
  'These two lines do not meet near the picture. Draw two that run into the distance beside each other, such as a kerb and the eaves over it.';

interface Line {
  from: PlatePoint;
  to: PlatePoint;
}

/** Drags on the picture that draw walls and decks. `trail` shows them on the way. */
export function usePlanGestures(trail: RefObject<SVGPathElement | null>) {
  const drawing = useView((view) => view.drawing);
  const setView = useView((view) => view.set);
  const { seek, snap } = useFootEdges();
  useEffect(() => {
    if (drawing === 'wall') seek();
  }, [drawing, seek]);
  const drawn = useRef<Line | null>(null);
  const drawWall = useWallDrawing();
  const drawDeck = useDeckDrawing();
  const drawParallel = useParallelDrawing();
  const { gestures: saying } = useSayStroke(trail);
  const drags = usePictureDrag({
    onDrag(_moved, free, event, pressed) {
      const isWall = drawing === 'wall';
      const from = isWall ? snap(pressed, undefined, event.altKey) : pressed;
      const to = isWall ? snap(free, from, event.altKey) : free;
      drawn.current = { from, to };
      if (drawing === 'deck') drawLine(trail.current, squareOf(drawn.current), true);
      else if (drawing) drawLine(trail.current, [from, to]);
    },
    onEnd() {
      trail.current?.removeAttribute('d');
      const now = drawn.current;
      drawn.current = null;
      if (!now) return;
      if (drawing === 'wall') void drawWall(now);
      if (drawing === 'deck') drawDeck(now);
      if (drawing === 'parallels') drawParallel(now);
      if (drawing === 'scale') setView({ measured: [now.from, now.to] });
    },
  });
  return drawing === 'say' ? saying : drags;
}

/** The corners of the square that a line spans on the plate. */
const squareOf = ({ from, to }: Line): PlatePoint[] => [
  from,
  { u: to.u, v: from.v },
  to,
  { u: from.u, v: to.v },
];

/** Draws a wall along a line, or lets one that ends where the line begins go on along it. */
function useWallDrawing(): (line: Line) => Promise<void> {
  const scene = useScene((state) => state.scene);
  const land = useStore(useSession().readout, (state) => state.land);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);

  /** A wall reaches up to where the plate shows its top. */
  async function heightOf(foot: PlateLine): Promise<number | undefined> {
    const lie = await land?.(scene).catch(() => undefined);
    return lie && seenHeight(cameraOf(scene), foot, lie);
  }

  return async ({ from, to }) => {
    const before = wallEndingAt(scene, from);
    if (before) {
      const foot = [...before.foot, wallEnd(scene, before.foot.at(-1)!, to)];
      run(setSurface(`${before.wall.name}: corner`, 'walls', before.wall.id, { foot }));
      setView({ surface: before.wall.id });
      return;
    }
    const wall = newWall(scene, from, to, await heightOf([from, to]));
    run(addSurface(wall.name, 'walls', wall));
    setView({ surface: wall.id });
  };
}

/** A wall that ends where a drag begins, with its corners in the order in which the drag goes on. */
function wallEndingAt({ plan, plate }: Scene, from: PlatePoint) {
  const near = (a: PlatePoint) =>
    Math.hypot(a.u - from.u, ((a.v - from.v) * plate.height) / plate.width) < NEAR;
  for (const wall of plan.walls) {
    if (wall.foot.length >= MOST_CORNERS) continue;
    if (near(wall.foot.at(-1)!)) return { wall, foot: wall.foot };
    if (near(wall.foot[0])) return { wall, foot: [...wall.foot].reverse() };
  }
  return undefined;
}

/** Draws a deck over a line's square. */
function useDeckDrawing(): (line: Line) => void {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  return ({ from, to }) => {
    const deck = newDeck(scene, from, to);
    run(addSurface(deck.name, 'decks', deck));
    setView({ surface: deck.id, drawing: undefined });
  };
}

/** The second of two lines that run alongside each other in the world lays the horizon through where they meet. */
function useParallelDrawing(): (line: Line) => void {
  const { plate, plan } = useScene((state) => state.scene);
  const parallel = useView((view) => view.parallel);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  return ({ from, to }) => {
    const line: PlateLine = [from, to];
    if (!parallel) return setView({ parallel: line });
    const meet = vanishingPoint(parallel, line, plate.width / plate.height);
    const horizon = meet && horizonThrough(plan.horizon, meet);
    const { min, max } = RANGES.horizon;
    setView({ parallel: undefined });
    if (
      !horizon ||
      Math.min(horizon.left, horizon.right) < min ||
      Math.max(horizon.left, horizon.right) > max
    ) {
      notifications.show({ color: 'yellow', message: NO_MEETING });
      return;
    }
    run(setPlan('Horizon from two lines', { horizon }));
    setView({ drawing: undefined });
  };
}
