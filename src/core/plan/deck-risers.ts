import type { Camera } from '../geometry/camera';
import { onLevel, type PitchedDeck } from './deck-plane';
import type { RippledFinish } from './surfaces';
import { straightPiece, type WallPiece } from './wall-pieces';
import { hypot } from '../plane/hypot';

/** Heights of decks whose edges go down to the ground, metres: kerbs, steps, platforms. What lies higher is a canopy. */
const STANDS = { least: 0.02, most: 1.2 } as const;

/** What lies higher than this, metres, and is smaller than this, square metres, is a table: under it one sees through. */
const TABLE = { height: 0.4, area: 4 } as const;

/** Edges shorter than this have no direction, metres. */
const SHORTEST = 0.02;

/**
 * The upright faces of level decks: of one that stands on the ground the edges that face the eye, down to it; of one that lies under it,
 * a road or water, the edges beyond it, up to the ground. A kerb's riser lies neither on the pavement nor on the road.
 */
export function deckRisers(camera: Camera, decks: readonly (PitchedDeck & RippledFinish)[]): WallPiece[] {
  return decks.flatMap(({ outline, height, pitch, ...finish }) => {
    const isLevel = pitch === undefined || pitch === 0;
    const tall = Math.abs(height);
    if (!isLevel || tall < STANDS.least || height > Math.min(STANDS.most, camera.eyeHeight)) return [];
    const corners = outline.map((at) => onLevel(camera, height, at));
    const area = signedArea(corners);
    if (height > TABLE.height && Math.abs(area) < TABLE.area) return [];
    const turn = Math.sign(area) * Math.sign(height);
    return corners.flatMap((from, k) => {
      const to = corners[(k + 1) % corners.length];
      const [ex, ey] = [to[0] - from[0], to[1] - from[1]];
      // Outward is to the right of an edge where corners follow each other against the clock. The eye is at the origin.
      const faces = turn * (ey * from[0] - ex * from[1]) < 0;
      if (!faces || hypot(ex, ey) < SHORTEST) return [];
      const base = Math.min(0, height);
      return [straightPiece(from, to, { height: Math.max(0, height), base, until: undefined, finish })];
    });
  });
}

/** Square metres; above 0 where corners follow each other against the clock, as seen from above. */
const signedArea = (corners: readonly (readonly [number, number])[]) =>
  corners.reduce((sum, [ax, ay], k) => {
    const [bx, by] = corners[(k + 1) % corners.length];
    return sum + (ax * by - ay * bx) / 2;
  }, 0);
