import { clampTo, RANGES } from '@/core/fields/ranges';
import { isUnsaid } from '@/core/geometry/ground';
import { guessThings, type GuessedThing } from '@/core/layout/guess-things';
import { piecesOf } from '@/core/layout/known-wall';
import type { ThingKind } from '@/core/layout/thing-kinds';
import { cameraOf } from '@/core/picture/camera-of';
import type { Command } from '@/core/scene/command';
import { MOST_MATTES } from '@/core/matte/matte-schema';
import { coveredShare } from '@/core/matte/coverage-picture';
import type { GroundPlan, Matte, Scene } from '@/core/scene/schema';
import { SUN_LIFT, sunShadowMatte } from './matte-actions';
import { guessedWall } from './plan-actions';
import { shadedWalls } from './shade-guess';
import { guessLay, newEyeHeight, type Clues, type ReadLand } from './plan-guess';
import type { ReadCoverage } from './standing-actions';

/** What of a ground plan is offered when a photo is new: all of it is used, or nothing. */
export interface FirstGuess {
  /** Its walls say which of them lie in the day's shade. It has no standees. */
  plan: GroundPlan;
  /** The sun's own shadow, where much of it lies on the ground: lamps light the ground under it as that beside it. */
  shadow?: Matte;
  /** What is seen to stand in it: once the plan is used, they are cut out and stood up one after the other. */
  things?: GuessedThing[];
}

/** Share of the picture that the sun's shadow on the ground covers from which it is offered: less of it is seen by few. */
const SHADED = 0.06;

/** The matte of the sun's shadow where it covers much of the picture, and walls that say whether they lie in its shade. */
async function guessSun(scene: Scene, land: ReadLand, coverage: ReadCoverage) {
  const shadow = sunShadowMatte(scene);
  const seen = await coverage({ ...scene, mattes: [...scene.mattes, shadow] }, shadow.id);
  const isLarge = coveredShare(seen) > SHADED;
  const walls = scene.plan.walls.length > 0 ? shadedWalls(scene, await land(scene), seen) : [];
  return { walls, ...(isLarge && { shadow }) };
}

/** Whether nobody has touched the ground plan of a scene, nor lit anything. */
export function isUntouched({ plan, fixtures }: Scene): boolean {
  const surfaces = plan.walls.length + plan.decks.length + plan.standees.length;
  return isUnsaid(plan.horizon) && surfaces + fixtures.length === 0;
}

/**
 * Guesses the ground plan of a photo that is new. Undefined where its edges do not tell it.
 *
 * @param photoLens the lens that the photo itself says
 * @param coverage tells whether the sun's shadow is to be offered, too
 */
export async function firstGuess(
  scene: Scene,
  clues: Pick<Clues, 'straightLines'>,
  land: ReadLand,
  photoLens?: number,
  coverage?: ReadCoverage,
): Promise<FirstGuess | undefined> {
  const { guess } = await guessLay(scene, clues, land);
  const { horizon, lens, walls } = guess;
  if (!horizon) return undefined;
  let plan: GroundPlan = { ...scene.plan, horizon, lens: photoLens ?? lens ?? scene.plan.lens };
  for (const wall of walls) {
    plan = { ...plan, walls: [...plan.walls, guessedWall({ ...scene, plan }, wall)] };
  }
  if (!coverage || scene.mattes.length >= MOST_MATTES) return { plan };
  const { shadow, walls: shaded } = await guessSun({ ...scene, plan }, land, coverage);
  return { plan: { ...plan, walls: shaded }, ...(shadow && { shadow }) };
}

/** A plan of which all scales with another eye height. */
const withEyeHeight = (plan: GroundPlan, eyeHeight: number): GroundPlan => ({
  ...plan,
  eyeHeight,
  walls: plan.walls.map((wall) => ({
    ...wall,
    height: clampTo((wall.height * eyeHeight) / plan.eyeHeight, RANGES.wallHeight),
  })),
});

/** An offer with the things that are seen to stand in the photo, and with the eye height that they tell. */
export async function withThings(
  scene: Scene,
  offer: FirstGuess,
  { seenThings }: Pick<Clues, 'seenThings'>,
): Promise<FirstGuess> {
  const { horizon } = offer.plan;
  const seen = await seenThings((horizon.left + horizon.right) / 2);
  const told = newEyeHeight(seen, horizon, offer.plan.eyeHeight);
  const plan = told === undefined ? offer.plan : withEyeHeight(offer.plan, told);
  const feet = plan.walls.flatMap(piecesOf);
  return { ...offer, plan, things: guessThings(seen, cameraOf({ ...scene, plan }), horizon, feet) };
}

/** Numbers as words, the first as what stands before one thing. */
const COUNTS = ['no', 'a', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'];
const counted = (count: number, one: string, many: string) =>
  `${COUNTS[count] ?? count} ${count === 1 ? one : many}`;

/** What stands, in words. */
function thingsSay(things: readonly GuessedThing[]): string {
  const isAll = (kind: ThingKind) => things.every(({ is }) => is === kind);
  if (isAll('person')) return counted(things.length, 'person', 'people');
  if (isAll('car')) return counted(things.length, 'car', 'cars');
  return counted(things.length, 'thing that stands', 'things that stand');
}

/** What is offered, in words. */
export function guessSays({ plan: { walls }, shadow, things = [] }: FirstGuess): string {
  const isShaded = shadow !== undefined || walls.some(({ dayShade }) => dayShade);
  const parts = [
    walls.length === 1 ? 'one wall' : walls.length > 1 ? counted(walls.length, '', 'walls') : '',
    'the horizon',
    isShaded ? 'the sun’s shadow' : '',
    things.length > 0 ? thingsSay(things) : '',
  ].filter((part) => part !== '');
  const last = parts.pop()!;
  const said = parts.length > 0 ? `${parts.join(', ')} and ${last}` : last;
  return `${said[0].toUpperCase()}${said.slice(1)} ${parts.length > 0 ? 'look' : 'looks'} like this.`;
}

/** Whether more than one thing is offered. */
export const isSeveral = ({ plan, shadow, things = [] }: FirstGuess): boolean =>
  plan.walls.length + things.length > 0 || shadow !== undefined;

/** Takes the plan that was offered; what stands in it comes after. */
export const takeFirstGuess = ({ plan: offered, shadow }: FirstGuess): Command => ({
  label: 'Use the first guess',
  apply: ({ plan, mattes }) => {
    const { horizon, lens, eyeHeight, walls } = offered;
    Object.assign(plan, { horizon, lens, eyeHeight, walls });
    if (!shadow) return;
    mattes.push(shadow);
    plan.sunShadow = { matte: shadow.id, lift: SUN_LIFT };
  },
});
