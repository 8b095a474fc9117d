import type { Command } from '@/core/scene/command';
import { UNKNOWN } from '@/core/scene/new-scene';
import { MOST_MATTES } from '@/core/matte/matte-schema';
import { coveredShare, type CoveragePicture } from '@/core/matte/coverage-picture';
import type { GroundPlan, Matte, Scene } from '@/core/scene/schema';
import { SUN_LIFT, sunShadowMatte } from './matte-actions';
import { guessedWall } from './plan-actions';
import { shadedWalls } from './shade-guess';
import { guessLay, type Clues, type ReadLand } from './plan-guess';

/** What of a ground plan is offered when a photo is new: all of it is used, or nothing. */
export interface FirstGuess {
  /** Its walls say which of them lie in the day's shade. */
  plan: GroundPlan;
  /** The sun's own shadow, where much of it lies on the ground: lamps light the ground under it as that beside it. */
  shadow?: Matte;
}

/** Share of the picture that the sun's shadow on the ground covers from which it is offered: less of it is seen by few. */
const SHADED = 0.06;

/** Reads what a matte of a scene covers. */
export type ReadCoverage = (scene: Scene, matte: string) => Promise<CoveragePicture>;

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
  const { left, right } = plan.horizon;
  const surfaces = plan.walls.length + plan.decks.length + plan.standees.length;
  const isLevel = left === UNKNOWN.horizon && right === UNKNOWN.horizon;
  return isLevel && surfaces + fixtures.length === 0;
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

const COUNTS = ['', 'One wall', 'Two walls', 'Three walls', 'Four walls'];

/** What is offered, in words. */
export function guessSays({ plan: { walls }, shadow }: FirstGuess): string {
  const count = COUNTS[walls.length] ?? `${walls.length} walls`;
  const isShaded = shadow !== undefined || walls.some(({ dayShade }) => dayShade);
  const parts = [count, 'the horizon', isShaded ? 'the sun’s shadow' : ''].filter((part) => part !== '');
  const last = parts.pop()!;
  const said = parts.length > 0 ? `${parts.join(', ')} and ${last}` : last;
  return `${said[0].toUpperCase()}${said.slice(1)} ${parts.length > 0 ? 'look' : 'looks'} like this.`;
}

/** Whether more than one thing is offered. */
export const isSeveral = ({ plan, shadow }: FirstGuess): boolean =>
  plan.walls.length > 0 || shadow !== undefined;

/** Takes the plan that was offered. */
export const takeFirstGuess = ({ plan: { horizon, lens, walls }, shadow }: FirstGuess): Command => ({
  label: 'Use the first guess',
  apply: ({ plan, mattes }) => {
    Object.assign(plan, { horizon, lens, walls });
    if (!shadow) return;
    mattes.push(shadow);
    plan.sunShadow = { matte: shadow.id, lift: SUN_LIFT };
  },
});
