import { guessHorizon } from '@/core/plan/guess-horizon';
import { cameraOf } from '@/core/picture/camera-of';
import { guessPosts, type GuessedPost, type UprightThing } from '@/core/plan/guess-posts';
import { guessWalls } from '@/core/plan/guess-walls';
import type { PlatePoint } from '@/core/plan/camera';
import type { PlateLine } from '@/core/plan/vanishing-point';
import type { GroundPlan, Scene } from '@/core/scene/schema';
import type { LandPicture } from '@/engine/renderer';

/** A first guess of a ground plan: each part is taken or left. */
export interface PlanGuess {
  horizon?: GroundPlan['horizon'];
  walls: { id: string; foot: [PlatePoint, PlatePoint] }[];
  posts: (GuessedPost & { id: string })[];
}

/** What a guess goes by: straight edges and thin upright things of the plate. */
export interface PlanClues {
  lines: readonly PlateLine[];
  things: readonly UprightThing[];
}

/**
 * Guesses horizon, walls and posts from a plate's edges and from where what rises meets the ground.
 *
 * @param land reads the lie of the land of a scene
 */
export async function guessPlan(
  scene: Scene,
  { lines, things }: PlanClues,
  land: (scene: Scene) => Promise<LandPicture>,
): Promise<PlanGuess> {
  const { plate, plan } = scene;
  const horizon = guessHorizon(lines, plate.width / plate.height);
  const bare = { ...plan, walls: [], decks: [], standees: [], horizon: horizon ?? plan.horizon };
  const { width, height, land: cover, level } = await land({ ...scene, plan: bare });
  const sky = cover.map((value) => 1 - value);
  const feet = guessWalls({ width, height, ground: level, sky }, bare.horizon);
  const camera = cameraOf({ ...scene, plan: bare });
  const posts = guessPosts(things, { width, height, ground: level }, camera, bare.horizon);
  const named = <T>(part: T) => ({ ...part, id: crypto.randomUUID() });
  return { horizon, walls: feet.map((foot) => named({ foot })), posts: posts.map(named) };
}
