import type { PitchedDeck } from '../plan/deck-plane';
import type { GlossRelief } from './rasterize-gloss';
import type { Tilts } from './standee-form';
import { DULL, type Finish, type RippledFinish } from '../plan/surfaces';
import type { BoxPiece } from '../plan/box-piece';
import type { WallPiece } from '../plan/wall-pieces';

/** What the relief of a region is made of beside the ground. */
export interface Surfaces {
  ground: RippledFinish;
  /** Coverage of the region within which alone the ground shines; without it all of it does. */
  wet?: Float32Array;
  /** Coverage of the region by land, where another sky than the plate's stands behind it. */
  skyline?: Float32Array;
  /** Folds by the plate's fine shading over the whole plate, where anything is rippled by them. */
  folds?: Tilts;
  walls: readonly WallPiece[];
  /** Coverages are of the region. */
  standees: readonly StandingRelief[];
  decks: readonly (PitchedDeck & RippledFinish)[];
  glosses: readonly GlossOver[];
  /** Coverages of the region by the mattes at which walls end, by matte. */
  ends: Readonly<Record<string, Float32Array>>;
}

/** A standee as the relief has it. */
export interface StandingRelief extends Finish {
  /** How far ahead it stands, metres. */
  ahead: number;
  coverage: Float32Array;
  /** Whether it is land wherever it is, whatever the survey found there. */
  isLand?: boolean;
  roundness: number;
  creased: number;
  /** Its place in the world if it is a box. */
  piece?: BoxPiece;
  /** Tilts of its normals over the whole plate, where it is round. */
  round?: Tilts;
}

/** A gloss over what is laid. */
export interface GlossOver extends GlossRelief {
  /** Tilts of its normals over the whole plate, where it is round. */
  round?: Tilts;
}

/** Ground alone, which does not shine. */
export const NO_SURFACES: Surfaces = {
  ground: DULL,
  walls: [],
  standees: [],
  decks: [],
  glosses: [],
  ends: {},
};
