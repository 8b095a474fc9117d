import { project, type Camera } from '../geometry/camera';
import type { Vec3 } from '../geometry/vec3';
import { withinOutline } from '../geometry/within-outline';
import { deckPlane, heightOver, type PitchedDeck } from '../plan/deck-plane';

/**
 * Tells how far the underside of a deck lies over a place, metres; undefined where none is right above it that is seen from below. Of
 * several the nearest counts. Places are in world axes, metres.
 */
export function canopiesAbove(
  camera: Camera,
  decks: readonly PitchedDeck[],
): (place: Vec3) => number | undefined {
  const canopies = decks.map((deck) => ({
    plane: deckPlane(camera, deck),
    corners: deck.outline.map(({ u, v }) => [u, v] as const),
  }));
  return ([x, y, z]) => {
    const over = canopies.flatMap(({ plane, corners }) => {
      const height = heightOver(plane, x, y);
      const seen = height > Math.max(z, camera.eyeHeight) && project(camera, [x, y, height]);
      return seen && withinOutline(corners, seen.u, seen.v) > 0 ? [height - z] : [];
    });
    return over.length > 0 ? Math.min(...over) : undefined;
  };
}
