import type { Camera } from '@/core/geometry/camera';
import { levelPieces, standsAhead, type LevelPiece } from '@/core/plan/surfaces';
import { wallPieces, type WallPiece } from '@/core/plan/wall-pieces';
import type { GroundPlan } from '@/core/scene/schema';
import { boundsOf, type Bounds, type Occluders } from '@/core/light/occlusion';
import { SOFT_LEVELS, softenCoverage } from '@/core/light/soft-coverage';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { landOf } from './land';
import type { ById } from './matte';
import { standing } from './placed';
import { ofEnds } from './relief';

/** A matte's coverage on the small copy, blurred to every width that a shadow's edge may have. */
export const soft = stage({
  name: 'soft',
  part: 'the mattes',
  region: (at) => smallOf(at).region,
  settings: () => undefined,
  inputs: (at, { id }: ById) => ({ matte: standing(at, id) }),
  prepare: ({ inputs: { matte: seen } }) => ({ bounds: boundsOf(seen.coverage, seen.width, seen.height) }),
  facts: (prepared) => prepared,
  planes: (pixels) => ({ levels: SOFT_LEVELS * pixels }),
  pace: 'heavy',
  whole: true,
  run(out, { matte: { width, height, coverage } }) {
    softenCoverage(out.levels, { width, height, data: coverage });
  },
});

type SoftView = View<'levels', { bounds: Bounds }>;

/** The mattes whose shadows fall. */
export const shadesAt = (at: Spot) => ({
  standees: landOf(at).plan.standees.map(({ matte: id }) => soft(at, { id })),
  ends: ofEnds(at.scene.plan, (id) => soft(at, { id })),
});

/** What of a ground plan casts shadows in the world, but for mattes. */
export interface CastPlan {
  walls: WallPiece[];
  decks: LevelPiece[];
  /** How far ahead each standee stands, metres. */
  ahead: number[];
}

export const castPlan = (camera: Camera, { walls, decks, standees }: GroundPlan): CastPlan => ({
  walls: wallPieces(camera, walls),
  decks: levelPieces(camera, decks).filter(({ height }) => height > 0),
  ahead: standees.map((standee) => standsAhead(camera, standee, decks)),
});

export interface ShadeViews {
  standees: SoftView[];
  ends: Record<string, SoftView>;
}

const seen = ({ width, height, levels, facts: { bounds } }: SoftView) => ({ width, height, levels, bounds });

/** What casts shadows; undefined where nothing does. */
export function occludersIn({ walls, decks, ahead }: CastPlan, shades: ShadeViews): Occluders | undefined {
  if (walls.length + decks.length + ahead.length === 0) return undefined;
  const ends = Object.entries(shades.ends).map(([id, view]) => [id, seen(view)] as const);
  const standees = shades.standees.map((view, k) => ({ ...seen(view), ahead: ahead[k] }));
  return { walls, decks, standees, ends: Object.fromEntries(ends) };
}
