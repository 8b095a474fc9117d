import { burns, layersOf } from '@/core/picture/layers';
import type { Scene } from '@/core/scene/schema';

/** The circuits of a scene whose layers burn. */
export const litLayerIds = (scene: Scene): string[] =>
  layersOf(scene)
    .filter(({ circuit }) => burns(circuit, scene))
    .map(({ circuit }) => circuit.id);
