import { useStore } from 'zustand';
import { standUp } from '@/core/scene/commands';
import { MOST_MATTES } from '@/core/matte/matte-schema';
import type { GuessedThing } from '@/core/layout/guess-things';
import type { EdgeStroke } from '@/core/matte/pass';
import { MOST_SURFACES } from '@/core/plan/plan-schema';
import type { Scene } from '@/core/scene/schema';
import type { PlanGuess } from '@/state/actions/plan-guess';
import { newPost, newThing, postLoop, thingStrokes, type Stood } from '@/state/actions/standing-actions';
import { useScene, useSession } from './editor-context';
import { useFinding } from './use-finding';

/** Whether a plan has room for one more that stands, with its matte. */
const hasRoom = ({ plan, mattes }: Scene) =>
  plan.standees.length < MOST_SURFACES && mattes.length < MOST_MATTES;

/** What stands guessed posts and things up, as far as the plan has room for them. The edge of what is broad is looked for first. */
export function useStanding() {
  const run = useScene((state) => state.run);
  const { scene: store, segmenter, readout } = useSession();
  const coverage = useStore(readout, (state) => state.coverage);
  const find = useFinding('Its edge could not be found');
  const now = () => store.getState().scene;
  const edgeBy = (strokes: EdgeStroke[]) => find(() => segmenter.brush(undefined, strokes));
  const stand = ({ matte, standee }: Stood) => {
    if (hasRoom(now())) run(standUp(matte, standee));
  };
  return {
    post: async (guessed: PlanGuess['posts'][number]) => {
      const loop = postLoop(guessed);
      stand(newPost(now(), guessed, loop && (await edgeBy([loop]))));
    },
    thing: async (guessed: GuessedThing) => {
      const asset = hasRoom(now()) ? await edgeBy(thingStrokes(now(), guessed)) : undefined;
      if (asset) stand(await newThing(now(), guessed, asset, coverage));
    },
  };
}
