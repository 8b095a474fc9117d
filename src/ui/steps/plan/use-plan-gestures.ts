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
import { newDeck, newWall, wallEnd } from '@/state/actions/plan-actions';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useFootEdges } from './use-foot-edges';
import { useSayStroke } from './use-say-stroke';
import { usePictureDrag } from '../../picture/use-picture-drag';

/** A drag that begins this near to a wall's end goes on from there, fraction of the plate's width. */
const NEAR = 0.015;

/** Drags on the picture that draw walls and decks. `trail` shows them on the way. */
export function usePlanGestures(trail: RefObject<SVGPathElement | null>) {
  const scene = useScene((state) => state.scene);
  const land = useStore(useSession().readout, (state) => state.land);
  const run = useScene((state) => state.run);
  const drawing = useView((view) => view.drawing);
  const parallel = useView((view) => view.parallel);
  const setView = useView((view) => view.set);
  const { seek, snap } = useFootEdges();
  useEffect(() => {
    if (drawing === 'wall') seek();
  }, [drawing, seek]);
  const drawn = useRef<{ from: PlatePoint; to: PlatePoint } | null>(null);

  const near = (a: PlatePoint, b: PlatePoint) =>
    Math.hypot(a.u - b.u, ((a.v - b.v) * scene.plate.height) / scene.plate.width) < NEAR;

  /** A wall that ends where a drag begins, with its corners in the order in which the drag goes on. */
  function wallEndingAt(from: PlatePoint) {
    for (const wall of scene.plan.walls) {
      if (wall.foot.length >= MOST_CORNERS) continue;
      if (near(wall.foot.at(-1)!, from)) return { wall, foot: wall.foot };
      if (near(wall.foot[0], from)) return { wall, foot: [...wall.foot].reverse() };
    }
    return undefined;
  }

  /** A wall reaches up to where the plate shows its top. */
  async function heightOf(foot: PlateLine): Promise<number | undefined> {
    const lie = await land?.(scene).catch(() => undefined);
    return lie && seenHeight(cameraOf(scene), foot, lie);
  }

  async function drawWall(from: PlatePoint, to: PlatePoint): Promise<void> {
    const before = wallEndingAt(from);
    if (before) {
      const foot = [...before.foot, wallEnd(scene, before.foot.at(-1)!, to)];
      run(setSurface(`${before.wall.name}: corner`, 'walls', before.wall.id, { foot }));
      setView({ surface: before.wall.id });
      return;
    }
    const wall = newWall(scene, from, to, await heightOf([from, to]));
    run(addSurface(wall.name, 'walls', wall));
    setView({ surface: wall.id });
  }

  function drawDeck(from: PlatePoint, to: PlatePoint): void {
    const deck = newDeck(scene, from, to);
    run(addSurface(deck.name, 'decks', deck));
    setView({ surface: deck.id, drawing: undefined });
  }

  /** The second of two lines that run alongside each other in the world lays the horizon through where they meet. */
  function drawParallel(from: PlatePoint, to: PlatePoint): void {
    const line: PlateLine = [from, to];
    if (!parallel) return setView({ parallel: line });
    const meet = vanishingPoint(parallel, line, scene.plate.width / scene.plate.height);
    const { min, max } = RANGES.horizon;
    const horizon = meet && horizonThrough(scene.plan.horizon, meet);
    setView({ parallel: undefined });
    if (
      !horizon ||
      Math.min(horizon.left, horizon.right) < min ||
      Math.max(horizon.left, horizon.right) > max
    ) {
      notifications.show({
        color: 'yellow',
        message:
          'These two lines do not meet near the picture. Draw two that run into the distance beside each other, such as a kerb and the eaves over it.',
      });
      return;
    }
    run(setPlan('Horizon from two lines', { horizon }));
    setView({ drawing: undefined });
  }

  const { gestures: saying } = useSayStroke(trail);
  const drags = usePictureDrag({
    onDrag(_moved, free, event, pressed) {
      const isWall = drawing === 'wall';
      const from = isWall ? snap(pressed, undefined, event.altKey) : pressed;
      const to = isWall ? snap(free, from, event.altKey) : free;
      drawn.current = { from, to };
      const svg = trail.current?.ownerSVGElement;
      if (!svg || !drawing) return;
      const [width, height] = [svg.width.baseVal.value, svg.height.baseVal.value];
      const at = (u: number, v: number) => `${u * width} ${v * height}`;
      const line = `M${at(from.u, from.v)}L${at(to.u, to.v)}`;
      const square = `M${at(from.u, from.v)}L${at(to.u, from.v)}L${at(to.u, to.v)}L${at(from.u, to.v)}Z`;
      trail.current!.setAttribute('d', drawing === 'deck' ? square : line);
      trail.current!.setAttribute('stroke-width', '1.5');
    },
    onEnd() {
      trail.current?.removeAttribute('d');
      const now = drawn.current;
      drawn.current = null;
      if (!now) return;
      if (drawing === 'wall') void drawWall(now.from, now.to);
      if (drawing === 'deck') drawDeck(now.from, now.to);
      if (drawing === 'parallels') drawParallel(now.from, now.to);
      if (drawing === 'scale') setView({ measured: [now.from, now.to] });
    },
  });
  return drawing === 'say' ? saying : drags;
}
