import type { Command } from '@/core/scene/command';
import { UNKNOWN } from '@/core/scene/new-scene';
import type { GroundPlan, Scene } from '@/core/scene/schema';
import { guessedWall } from './plan-actions';
import { guessLay, type Clues, type ReadLand } from './plan-guess';

/** What of a ground plan is offered when a photo is new: all of it is used, or nothing. */
export interface FirstGuess {
  plan: GroundPlan;
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
 */
export async function firstGuess(
  scene: Scene,
  clues: Pick<Clues, 'straightLines'>,
  land: ReadLand,
  photoLens?: number,
): Promise<FirstGuess | undefined> {
  const { guess } = await guessLay(scene, clues, land);
  const { horizon, lens, walls } = guess;
  if (!horizon) return undefined;
  let plan: GroundPlan = { ...scene.plan, horizon, lens: photoLens ?? lens ?? scene.plan.lens };
  for (const wall of walls) {
    plan = { ...plan, walls: [...plan.walls, guessedWall({ ...scene, plan }, wall)] };
  }
  return { plan };
}

const COUNTS = ['', 'One wall', 'Two walls', 'Three walls', 'Four walls'];

/** What is offered, in words. */
export function guessSays({ plan: { walls } }: FirstGuess): string {
  if (walls.length === 0) return 'The horizon looks like this.';
  const count = COUNTS[walls.length] ?? `${walls.length} walls`;
  return `${count} and the horizon look like this.`;
}

/** Takes the plan that was offered. */
export const takeFirstGuess = ({ plan: { horizon, lens, walls } }: FirstGuess): Command => ({
  label: 'Use the first guess',
  apply: ({ plan }) => {
    Object.assign(plan, { horizon, lens, walls });
  },
});
