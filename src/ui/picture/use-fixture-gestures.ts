import { notifications } from '@mantine/notifications';
import { useRef, type RefObject } from 'react';
import type { PlatePoint } from '@/core/geometry/camera';
import { addCopies } from '@/core/scene/bulb-commands';
import { MOST_FIXTURES, type FixtureValues } from '@/core/scene/schema';
import { isClicked, isDragged, KINDS } from '@/core/fixture/kinds';
import { middleOfPath, pathAcross, tubeAlong } from '@/state/fixture-actions';
import { letteringAcross } from '@/state/lettering';
import { rowCopies } from '@/state/twins';
import { useScene, useView } from '../editor/editor-context';
import { useLightFixture } from '../editor/use-light-fixture';
import { usePictureDrag } from './use-picture-drag';
import { useStroke } from './use-stroke';

/** Drags shorter than this are slips of the hand, fraction of the plate. */
const SLIP = 0.003;

/** Gestures on the picture that light fixtures: a click, a drag across a pane or from lamp to lamp, a stroke along a tube. */
export function useFixtureGestures(
  trail: RefObject<SVGPathElement | null>,
  pick: ((at: PlatePoint) => void) | undefined,
) {
  const scene = useScene((state) => state.scene);
  const kind = useView((view) => view.kind);
  const lettering = useView((view) => view.lettering);
  const { gesture, closed } = KINDS[kind];
  const framing = useView((view) => view.framing) && gesture === 'stroke';
  const writing = gesture === 'stroke' && lettering.trim() !== '';
  const setView = useView((view) => view.set);
  const lightFixture = useLightFixture();
  const rowing = useView((view) => view.rowing);
  const chosen = useView((view) => view.chosen);
  const run = useScene((state) => state.run);
  const original = scene.fixtures.find(({ id }) => id === chosen);
  const rowEnd = useRef<PlatePoint>(undefined);
  const written = useRef<ReturnType<typeof letteringAcross>>(undefined);
  const across = useRef<PlatePoint[]>([]);
  const straight = useRef(false);

  function light(at: PlatePoint, path?: PlatePoint[], more?: FixtureValues): void {
    if (scene.fixtures.length < MOST_FIXTURES) return lightFixture(at, path, more);
    notifications.show({
      color: 'yellow',
      message: `A scene holds at most ${MOST_FIXTURES} fixtures. Remove one to light another.`,
    });
  }

  function show(path: readonly PlatePoint[], closed: boolean, breaks: readonly number[] = []): void {
    const svg = trail.current?.ownerSVGElement;
    if (!svg) return;
    const [width, height] = [svg.width.baseVal.value, svg.height.baseVal.value];
    const points = path.map(
      ({ u, v }, i) => `${i === 0 || breaks.includes(i) ? 'M' : 'L'}${u * width} ${v * height}`,
    );
    trail.current!.setAttribute('d', path.length > 1 ? `${points.join('')}${closed ? 'Z' : ''}` : '');
    trail.current!.setAttribute('stroke-width', '1.5');
  }
  const clear = () => trail.current?.removeAttribute('d');

  const drag = usePictureDrag({
    onDrag(_moved, to, _event, from) {
      if (rowing !== undefined && original) {
        rowEnd.current = to;
        const copies = rowCopies(scene, original, to, rowing);
        show([original.foot, ...copies.map(({ foot }) => foot)], false);
        return;
      }
      if (pick || !(writing || framing || isDragged(kind))) return;
      written.current = writing ? letteringAcross(scene, lettering, from, to) : undefined;
      across.current = written.current?.path ?? (writing ? [] : pathAcross(scene, kind, from, to));
      show(across.current, closed, written.current?.breaks);
    },
    onEnd() {
      clear();
      if (rowing !== undefined && original && rowEnd.current) {
        const copies = rowCopies(scene, original, rowEnd.current, rowing);
        rowEnd.current = undefined;
        if (copies.length > 0)
          run(addCopies(`Row of ${original.name}`, original.id, crypto.randomUUID(), copies));
        setView({ rowing: undefined });
        return;
      }
      const path = across.current;
      across.current = [];
      if (path.length === 0) return;
      const middle = middleOfPath(path);
      const wide = path.some(({ u }) => Math.abs(u - middle.u) > SLIP);
      const high = path.some(({ v }) => Math.abs(v - middle.v) > SLIP);
      const big = closed ? wide && high : wide || high;
      if (big) light(middle, path, { breaks: written.current?.breaks ?? [] });
    },
    onClick(at) {
      if (pick) pick(at);
      else if (rowing !== undefined) return;
      else if (!isClicked(kind)) setView({ chosen: undefined });
      else light(at);
    },
  });

  const stroke = useStroke({
    onPart: (path) => show(tubeAlong(path, straight.current), false),
    onEnd(path) {
      clear();
      const way = tubeAlong(path, straight.current);
      if (way.length < 2) setView({ chosen: undefined });
      else light(middleOfPath(way), way);
    },
    onGiveUp: clear,
  });
  if (gesture !== 'stroke' || writing || framing || pick || rowing !== undefined) return drag;
  return {
    ...stroke,
    onPointerMove(event: Parameters<typeof stroke.onPointerMove>[0]) {
      straight.current = event.shiftKey;
      stroke.onPointerMove(event);
    },
  };
}
