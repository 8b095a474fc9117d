import type { RefObject } from 'react';
import { MOST_STROKE } from '@/core/fields/path';
import type { PlatePoint } from '@/core/geometry/camera';
import { MOST_SAID } from '@/core/plan/plan-schema';
import { sayPlace } from '@/core/scene/commands';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useStroke } from '../../picture/use-stroke';
import { cssOf, PLACE_TINTS } from './place-tints';

/** Strokes on the picture that say what a place is. `trail` shows them on the way, in their tint. */
export function useSayStroke(trail: RefObject<SVGPathElement | null>) {
  const { scene: store } = useSession();
  const run = useScene((state) => state.run);
  const saying = useView((view) => view.saying);
  const sayingSize = useView((view) => view.sayingSize);

  /** Says it along a way: u, v; u, v ... */
  function say(path: number[]): void {
    const { strokes } = store.getState().scene.plan;
    if (strokes.length < MOST_SAID) run(sayPlace({ as: saying, path, size: sayingSize }));
  }

  function clear(): void {
    trail.current?.removeAttribute('d');
    trail.current?.removeAttribute('style');
  }

  const gestures = useStroke({
    onPart(path) {
      const svg = trail.current?.ownerSVGElement;
      if (!svg) return;
      const [width, height] = [svg.width.baseVal.value, svg.height.baseVal.value];
      const places: string[] = [];
      for (let i = 0; i + 2 < path.length; i += 3) places.push(`${path[i] * width} ${path[i + 1] * height}`);
      trail.current!.setAttribute('d', `M${places[0]}L${places.join('L')}`);
      trail.current!.setAttribute('stroke-width', String(2 * sayingSize * width));
      trail.current!.setAttribute('style', `stroke: ${cssOf(PLACE_TINTS[saying].tint)}`);
    },
    onEnd(path) {
      clear();
      say(path.filter((_, i) => i % 3 < 2).slice(0, 2 * MOST_STROKE));
    },
    onGiveUp: clear,
  });
  return { gestures, dab: ({ u, v }: PlatePoint) => say([u, v]) };
}
