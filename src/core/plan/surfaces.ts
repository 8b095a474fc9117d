import { alongRay, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { FARTHEST_GROUND, groundPoint } from '../geometry/ground';
import { deckPlane, intersectDeck, type DeckPlane, type PitchedDeck } from './deck-plane';
import { withinOutline } from '../geometry/within-outline';
import type { Vec3 } from '../geometry/vec3';

/** What a surface gives back toward the eye. */
export interface Finish {
  /** How much of the light it gives back as a mirror, however rough, 0 to 1; the rest lights the plate. */
  sheen: number;
  /** How rough the mirror is, 0 to 1. */
  roughness: number;
}

/** A finish that the plate's fine shading ripples, 0 to 1. */
export interface RippledFinish extends Finish {
  crease: number;
}

/** A wall as a person draws it: the corners of its foot on the ground, one after the other. */
export interface Wall extends RippledFinish {
  id: string;
  name: string;
  foot: PlatePoint[];
  /** Metres. */
  height: number;
  /** The matte at which it ends: it is only where this covers. */
  until?: string;
  /** How many stops darker by day it is than what the sun shines on. */
  dayShade?: number;
}

/** A matte that stands upright on its feet and faces the eye. */
export interface Standee extends Finish {
  id: string;
  name: string;
  matte: string;
  /** Where it stands on the ground. */
  foot: PlatePoint;
  /** 0: flat; 1: as round as a barrel of its width. */
  roundness: number;
  /** How far the plate's fine shading tells its folds, 0 to 1. */
  crease: number;
  /** What makes a box of it, whose near corner its foot is; without it, it is a card. */
  box?: StandingBox;
}

/** The far ends of a box's two edges on the ground that are seen, and its height in metres. */
export interface StandingBox {
  left: PlatePoint;
  right: PlatePoint;
  height: number;
}

/** A level surface at a height, or a slope: an awning, a roof, a ramp. */
export interface Deck extends RippledFinish {
  id: string;
  name: string;
  /** Its outline, as it is seen. */
  outline: PlatePoint[];
  /** Metres above the ground; below 0 for water under a quay. Of a slope, that of its eave. */
  height: number;
  /** How steeply it rises away from the eye from its lowest edge on, degrees; without it, it is level. */
  pitch?: number;
}

/** A matte that shines, as far off as what it lies on, with a turn and a lean of its own: a windscreen, a bonnet, shop glass. */
export interface Gloss extends Finish {
  id: string;
  name: string;
  matte: string;
  /** How far it faces to the right of the eye, degrees; below 0 to the left. */
  turn: number;
  /** How far it leans back, degrees: 0 upright, 90 level. */
  lean: number;
  /** 0: flat; 1: as round as a barrel of its width. */
  roundness: number;
}

/** Whether anything of a ground plan shines. */
export const shines = ({
  ground,
  walls,
  standees,
  decks,
  glosses,
}: Record<'walls' | 'standees' | 'decks' | 'glosses', readonly Finish[]> & {
  ground: Finish;
}): boolean => [ground, ...walls, ...standees, ...decks, ...glosses].some(({ sheen }) => sheen > 0);

/** A surface that does not shine. */
export const DULL: RippledFinish = { sheen: 0, roughness: 1, crease: 0 };

/** A deck in the world: its plane, and where its corners lie over the ground, metres. */
export interface DeckPiece extends DeckPlane {
  corners: readonly (readonly [x: number, y: number])[];
}

/** Decks in the world. Corners that are seen where their plane never is lie very far off. */
export function deckPieces(camera: Camera, decks: readonly PitchedDeck[]): DeckPiece[] {
  return decks.map((deck) => {
    const plane = deckPlane(camera, deck);
    const corners = deck.outline.map((at) => {
      const [aside, ahead, rise] = rayThrough(camera, at);
      const farthest = FARTHEST_GROUND / Math.max(ahead, 1e-6);
      const reach = Math.min(intersectDeck(plane, camera.eyeHeight, aside, ahead, rise), farthest);
      return [aside * reach, ahead * reach] as const;
    });
    return { ...plane, corners };
  });
}

/** The world place of a foot: on the nearest deck that is seen there, else on the ground. */
export function standsOn(camera: Camera, foot: PlatePoint, decks: readonly PitchedDeck[]): Vec3 {
  const ray = rayThrough(camera, foot);
  const levels = decks
    .filter(
      ({ outline }) =>
        withinOutline(
          outline.map(({ u, v }) => [u, v] as const),
          foot.u,
          foot.v,
        ) > 0,
    )
    .map((deck) => intersectDeck(deckPlane(camera, deck), camera.eyeHeight, ...ray))
    .filter((reach) => reach * ray[1] < FARTHEST_GROUND);
  if (levels.length === 0) return groundPoint(camera, foot);
  return alongRay(camera, ray, Math.min(...levels));
}

/** How far ahead a standee stands, metres. */
export const standsAhead = (
  camera: Camera,
  { foot }: Pick<Standee, 'foot'>,
  decks: readonly PitchedDeck[],
): number => Math.max(0.1, standsOn(camera, foot, decks)[1]);
