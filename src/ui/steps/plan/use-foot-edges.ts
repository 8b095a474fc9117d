import { useCallback, useRef } from 'react';
import type { PlatePoint } from '@/core/geometry/camera';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import { snapFoot } from '@/core/layout/foot-edges';
import { useScene, useSession } from '../../editor/editor-context';

/**
 * Feet of walls that snap to the plate's level edges. `seek` begins to look for them; until they are there, and where the key that frees is
 * held, feet stay where they are dragged.
 */
export function useFootEdges() {
  const { segmenter } = useSession();
  const { width, height } = useScene(({ scene }) => scene.plate);
  const edges = useRef<readonly PlateLine[]>(undefined);
  const seek = useCallback(() => {
    if (edges.current) return;
    edges.current = [];
    segmenter.footEdges().then(
      (found) => (edges.current = found),
      // Feet then go where they are dragged; the next drag looks again.
      () => (edges.current = undefined),
    );
  }, [segmenter]);
  const snap = (to: PlatePoint, other: PlatePoint | undefined, free: boolean): PlatePoint =>
    free || !edges.current ? to : snapFoot(edges.current, to, other, width / height);
  return { seek, snap };
}
