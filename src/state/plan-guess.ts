import { guessHorizon } from '@/core/plan/guess-horizon';
import { guessWalls } from '@/core/plan/guess-walls';
import type { PlatePoint } from '@/core/plan/camera';
import type { PlateLine } from '@/core/plan/vanishing-point';
import type { GroundPlan, Scene } from '@/core/scene/schema';
import type { LandPicture } from '@/engine/renderer';

/** A first guess of a ground plan: each part is taken or left. */
export interface PlanGuess {
  horizon?: GroundPlan['horizon'];
  walls: { id: string; foot: [PlatePoint, PlatePoint] }[];
}

/**
 * Guesses horizon and walls from a plate's straight edges and from where what rises meets the ground.
 *
 * @param land reads the lie of the land of a scene
 */
export async function guessPlan(
  scene: Scene,
  lines: readonly PlateLine[],
  land: (scene: Scene) => Promise<LandPicture>,
): Promise<PlanGuess> {
  const { plate, plan } = scene;
  const horizon = guessHorizon(lines, plate.width / plate.height);
  const bare = { ...plan, walls: [], decks: [], standees: [], horizon: horizon ?? plan.horizon };
  const { width, height, land: cover, level } = await land({ ...scene, plan: bare });
  const sky = cover.map((value) => 1 - value);
  const feet = guessWalls({ width, height, ground: level, sky }, bare.horizon);
  return { horizon, walls: feet.map((foot) => ({ id: crypto.randomUUID(), foot })) };
}
