import { addSurface, setPlan, standUp } from '@/core/scene/commands';
import { MOST_MATTES } from '@/core/matte/matte-schema';
import type { EdgeStroke } from '@/core/matte/pass';
import { MOST_SURFACES } from '@/core/plan/plan-schema';
import type { Scene } from '@/core/scene/schema';
import {
  guessedDeck,
  guessedWall,
  newPost,
  newThing,
  postLoop,
  thingLoop,
} from '@/state/actions/plan-actions';
import type { PlanGuess } from '@/state/actions/plan-guess';
import { useScene, useSession } from '../../editor/editor-context';
import { useFinding } from '../../editor/use-finding';

/** One part of what was guessed of a plan. */
export interface GuessPart {
  key: string;
  label: string;
  take: () => void | Promise<void>;
  /** The guess without it. */
  rest: PlanGuess;
}

type Listed = 'walls' | 'posts' | 'decks' | 'things';

/** Whether a plan has room for one more that stands, with its matte. */
const hasRoom = ({ plan, mattes }: Scene) =>
  plan.standees.length < MOST_SURFACES && mattes.length < MOST_MATTES;

/** The parts of a guess, each to take or to leave; those that take time come last. */
export function useGuessParts(): (guess: PlanGuess) => GuessPart[] {
  const taking = useTaking();
  return (guess) => {
    const { horizon, lens } = guess;
    const parts: GuessPart[] = [];
    if (horizon) {
      const [take, rest] = [() => taking.horizon(horizon), { ...guess, horizon: undefined }];
      parts.push({ key: 'horizon', label: 'the guessed horizon', take, rest });
    }
    if (lens !== undefined) {
      const [take, rest] = [() => taking.lens(lens), { ...guess, lens: undefined }];
      parts.push({ key: 'lens', label: `the guessed lens, ${lens} mm`, take, rest });
    }
    const each = <K extends Listed>(
      name: K,
      label: string,
      take: (one: PlanGuess[K][number]) => void | Promise<void>,
    ) =>
      guess[name].forEach((one, i) =>
        parts.push({
          ...{ key: one.id, label: `${label}${i + 1}`, take: () => take(one) },
          rest: { ...guess, [name]: guess[name].filter(({ id }) => id !== one.id) },
        }),
      );
    each('walls', 'guessed wall w', taking.wall);
    each('posts', 'guessed post p', taking.post);
    each('decks', 'guessed deck d', taking.deck);
    each('things', 'guessed thing t', taking.thing);
    return parts;
  };
}

/** What puts parts of a guess into the plan, as far as it has room for them. */
function useTaking() {
  const run = useScene((state) => state.run);
  const { scene: store, segmenter } = useSession();
  const find = useFinding('Its edge could not be found');
  const now = () => store.getState().scene;
  const edgeBy = (stroke: EdgeStroke) => find(() => segmenter.brush(undefined, [stroke]));
  return {
    horizon: (horizon: Scene['plan']['horizon']) => run(setPlan('Guessed horizon', { horizon })),
    lens: (lens: number) => run(setPlan('Guessed lens', { lens })),
    wall: (guessed: PlanGuess['walls'][number]) => {
      if (now().plan.walls.length >= MOST_SURFACES) return;
      const wall = guessedWall(now(), guessed);
      run(addSurface(wall.name, 'walls', wall));
    },
    deck: (guessed: PlanGuess['decks'][number]) => {
      if (now().plan.decks.length >= MOST_SURFACES) return;
      const deck = guessedDeck(now(), guessed);
      run(addSurface(deck.name, 'decks', deck));
    },
    /** The edge of a broad one is looked for first. */
    post: async (guessed: PlanGuess['posts'][number]) => {
      const loop = postLoop(guessed);
      const asset = loop && (await edgeBy(loop));
      if (!hasRoom(now())) return;
      const { matte, standee } = newPost(now(), guessed, asset);
      run(standUp(matte, standee));
    },
    /** Its edge is looked for first. */
    thing: async (guessed: PlanGuess['things'][number]) => {
      const asset = await edgeBy(thingLoop(guessed.loop));
      if (!asset || !hasRoom(now())) return;
      const { matte, standee } = newThing(now(), guessed, asset);
      run(standUp(matte, standee));
    },
  };
}
