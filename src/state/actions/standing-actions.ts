import type { CoveragePicture } from '@/core/matte/coverage-picture';
import type { EdgeStroke, Pass } from '@/core/matte/pass';
import type { GuessedPost } from '@/core/layout/guess-posts';
import type { GuessedThing } from '@/core/layout/guess-things';
import { THING_KINDS, type ThingKind } from '@/core/layout/thing-kinds';
import type { GroundPlan, Matte, Scene } from '@/core/scene/schema';
import { boxed } from './box-actions';
import { freeName } from './free-name';
import { newMatte, newPass } from './matte-actions';
import { newStandee } from './plan-actions';

/** Reads what a matte of a scene covers. */
export type ReadCoverage = (scene: Scene, matte: string) => Promise<CoveragePicture>;

/** A matte, and what it is stood up as. */
export interface Stood {
  matte: Matte;
  standee: GroundPlan['standees'][number];
}

/**
 * A thing that was guessed, as a matte of what the edge brush found in a loop around it, and the standee that it is: a box, where it
 * is seen to be like one and its matte shows how that stands.
 *
 * @param coverage tells what a matte covers
 */
export async function newThing(
  scene: Scene,
  thing: GuessedThing,
  asset: string,
  coverage?: ReadCoverage,
): Promise<Stood> {
  const { title, boxy } = THING_KINDS[thing.is];
  const matte = brushedMatte(scene, title, thingStrokes(scene, thing), asset);
  const standee = newStandee(scene, matte, thing.foot);
  if (!boxy || !coverage) return { matte, standee };
  const seen = await coverage({ ...scene, mattes: [...scene.mattes, matte] }, matte.id);
  return { matte, standee: { ...standee, ...boxed(scene, standee, seen) } };
}

/** A matte of what the edge brush found by some strokes. */
const brushedMatte = (scene: Scene, stem: string, strokes: EdgeStroke[], asset: string): Matte => ({
  ...newMatte(scene, 'edge'),
  name: freeName(stem, scene.mattes),
  passes: [{ ...newPass('edge'), kind: 'edge', strokes, asset }],
});

/** The stroke that takes what is inside a loop. */
const loopStroke = (path: number[]): EdgeStroke => ({ act: 'loop', path, size: 0.02 });

/** Lines along which a thing surely covers its box: shares of its breadth and height, and how broad they are, a share of the shorter. */
interface SureLine {
  from: readonly [number, number];
  to: readonly [number, number];
  broad: number;
}

/** A person from head to feet, a car over its wheels and under its roof, anything else across its middle. */
const SURE: Partial<Record<ThingKind, readonly SureLine[]>> & Record<'thing', readonly SureLine[]> = {
  person: [{ from: [0.5, 0.12], to: [0.5, 0.92], broad: 0.12 }],
  car: [
    { from: [0.15, 0.7], to: [0.85, 0.7], broad: 0.18 },
    { from: [0.32, 0.3], to: [0.68, 0.3], broad: 0.18 },
  ],
  thing: [{ from: [0.3, 0.6], to: [0.7, 0.6], broad: 0.2 }],
};

/** The strokes that find a thing's edge: a loop around it, and then where it surely is. */
export function thingStrokes({ plate }: Pick<Scene, 'plate'>, { loop, box, is }: GuessedThing): EdgeStroke[] {
  const [across, down] = [box.right - box.left, box.foot - box.top];
  const shorter = Math.min(across, (down * plate.height) / plate.width);
  const at = ([x, y]: SureLine['from']) => [box.left + x * across, box.top + y * down];
  const sure = (SURE[is] ?? SURE.thing).map(({ from, to, broad }): EdgeStroke => ({
    act: 'take',
    path: [...at(from), ...at(to)],
    size: broad * shorter,
  }));
  return [loopStroke(loop), ...sure];
}

/** Posts that are seen broader than this have an edge that the brush finds, fraction of the width. */
const BROAD_POST = 0.008;

/** How far around a post its edge is looked for, shares of its breadth and height. */
const AROUND_POST = { aside: 0.6, up: 0.08 } as const;

/** The stroke that takes all of a broad post: it may be told by its darker side alone. Undefined for one that is thin. */
export function postLoop({ outline }: GuessedPost): EdgeStroke | undefined {
  const [us, vs] = [outline.map(({ u }) => u), outline.map(({ v }) => v)];
  const [left, right, top, low] = [Math.min(...us), Math.max(...us), Math.min(...vs), Math.max(...vs)];
  if (right - left < BROAD_POST) return undefined;
  const [du, dv] = [AROUND_POST.aside * (right - left), AROUND_POST.up * (low - top)];
  const corners = [
    left - du,
    top - dv,
    right + du,
    top - dv,
    right + du,
    low + dv / 2,
    left - du,
    low + dv / 2,
  ];
  return loopStroke(corners.map((at) => Math.min(1, Math.max(0, at))));
}

/**
 * A post that was guessed, as a matte and the standee that it is: round, and not creased. With what the edge brush found around it, if it did,
 * which may be its darker part alone.
 */
export function newPost(scene: Scene, post: GuessedPost, asset?: string): Stood {
  const { outline, foot } = post;
  const stroke = postLoop(post);
  const shaft: Pass = { ...newPass('outline'), kind: 'outline', points: outline };
  const found = asset !== undefined && stroke ? brushedMatte(scene, 'Post', [stroke], asset) : undefined;
  const matte: Matte = found
    ? { ...found, passes: [...found.passes, shaft] }
    : { ...newMatte(scene, 'outline'), name: freeName('Post', scene.mattes), passes: [shaft] };
  return { matte, standee: { ...newStandee(scene, matte, foot), roundness: 1, crease: 0 } };
}
