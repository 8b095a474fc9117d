import type { EdgeStroke } from '@/core/matte/pass';
import { middleOf } from '@/core/plane/middle-of';
import { runCommand } from '@/core/scene/command';
import { standUp } from '@/core/scene/commands';
import type { Scene } from '@/core/scene/schema';
import type { PlanGuess } from '@/state/actions/plan-guess';
import {
  newPost,
  newThing,
  postLoop,
  thingStrokes,
  type ReadCoverage,
  type Stood,
} from '@/state/actions/standing-actions';
import { SHOWS, type Layout } from './layout-files';
import { TRUTH } from './truth-files';

/** What stands on the ground by itself: things, lamps and their posts. */
const STANDS: ReadonlySet<number> = new Set([SHOWS.standing, SHOWS.lamp, SHOWS.glass]);

/** How many of the posts and things that are said stand where something stands: at their middle, or beside it. */
export function rightStanding({ posts, things }: PlanGuess, { ids }: Layout): number {
  const middles = [
    ...posts.map(({ outline }) => middleOf(outline)),
    ...things.map(({ box }) => ({ u: (box.left + box.right) / 2, v: (box.top + box.foot) / 2 })),
  ];
  return middles.filter(({ u, v }) => {
    const at = Math.floor(v * TRUTH.height) * TRUTH.width + Math.floor(u * TRUTH.width);
    return [at - 1, at, at + 1].some((i) => STANDS.has(ids[i]));
  }).length;
}

/** What finds edges: the asset of what strokes find, and what a matte covers. */
interface Edges {
  find: (strokes: EdgeStroke[]) => Promise<string>;
  coverage: ReadCoverage;
}

/** A scene in which all things and posts of a guess stand. */
export async function stood(scene: Scene, guess: PlanGuess, { find, coverage }: Edges): Promise<Scene> {
  let now = scene;
  const stand = ({ matte, standee }: Stood) => {
    now = runCommand(now, standUp(matte, standee)).scene;
  };
  for (const thing of guess.things) {
    stand(await newThing(now, thing, await find(thingStrokes(now, thing)), coverage));
  }
  for (const post of guess.posts) {
    const loop = postLoop(post);
    stand(newPost(now, post, loop && (await find([loop]))));
  }
  return now;
}
