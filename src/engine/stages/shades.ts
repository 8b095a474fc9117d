import type { Camera } from '@/core/geometry/camera';
import { boxPiece, boxShades } from '@/core/plan/box-piece';
import { deckPieces, standsAhead, type DeckPiece } from '@/core/plan/surfaces';
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
import { endsOfWalls, ofEach } from './relief';

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
export const shadesAt = (at: Spot) => {
  const { plan } = landOf(at);
  // Sides of boxes end where their mattes do.
  const boxes = plan.standees.flatMap(({ matte: id, box }) => (box ? id : []));
  return {
    standees: plan.standees.map(({ matte: id }) => soft(at, { id })),
    ends: ofEach([...endsOfWalls(plan), ...boxes], (id) => soft(at, { id })),
  };
};

/** What of a ground plan casts shadows in the world, but for mattes. */
export interface CastPlan {
  walls: WallPiece[];
  /** Sides of boxes. */
  sides: WallPiece[];
  decks: DeckPiece[];
  /** How far ahead each standee stands, metres; undefined for a box, whose sides and lid stand for it. */
  ahead: (number | undefined)[];
}

export function castPlan(camera: Camera, { walls, decks, standees }: GroundPlan): CastPlan {
  const boxes = standees.map((standee) => {
    const piece = boxPiece(camera, standee, decks);
    return piece && boxShades(piece, standee.matte);
  });
  return {
    walls: wallPieces(camera, walls),
    sides: boxes.flatMap((box) => box?.walls ?? []),
    decks: [
      ...deckPieces(
        camera,
        decks.filter(({ height }) => height > 0),
      ),
      ...boxes.flatMap((box) => box?.lid ?? []),
    ],
    ahead: standees.map((standee, k) => (boxes[k] ? undefined : standsAhead(camera, standee, decks))),
  };
}

export interface ShadeViews {
  standees: SoftView[];
  ends: Record<string, SoftView>;
}

const seen = ({ width, height, levels, facts: { bounds } }: SoftView) => ({ width, height, levels, bounds });

/** What casts shadows; undefined where nothing does. */
export function occludersIn(
  { walls, sides, decks, ahead }: CastPlan,
  shades: ShadeViews,
): Occluders | undefined {
  if (walls.length + sides.length + decks.length + ahead.length === 0) return undefined;
  const ends = Object.entries(shades.ends).map(([id, view]) => [id, seen(view)] as const);
  const standees = shades.standees.flatMap((view, k) => {
    const stands = ahead[k];
    return stands === undefined ? [] : { ...seen(view), ahead: stands };
  });
  return { walls: [...walls, ...sides], decks, standees, ends: Object.fromEntries(ends) };
}
