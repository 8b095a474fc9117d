import { addSurface, setPlan } from '@/core/scene/commands';
import { MOST_SURFACES } from '@/core/plan/plan-schema';
import type { Scene } from '@/core/scene/schema';
import { THING_KINDS } from '@/core/layout/thing-kinds';
import { guessedDeck, guessedWall } from '@/state/actions/plan-actions';
import type { PlanGuess } from '@/state/actions/plan-guess';
import { useScene, useSession } from '../../editor/editor-context';
import { useStanding } from '../../editor/use-standing';

/** One part of what was guessed of a plan. */
export interface GuessPart {
  key: string;
  label: string;
  take: () => void | Promise<void>;
  /** The guess without it. */
  rest: PlanGuess;
}

type Listed = 'walls' | 'posts' | 'decks' | 'things';

/** The parts of a guess, each to take or to leave; those that take time come last. */
export function useGuessParts(): (guess: PlanGuess) => GuessPart[] {
  const taking = useTaking();
  return (guess) => {
    const { horizon, lens, eyeHeight } = guess;
    const parts: GuessPart[] = [];
    if (horizon) {
      const [take, rest] = [() => taking.horizon(horizon), { ...guess, horizon: undefined }];
      parts.push({ key: 'horizon', label: 'the guessed horizon', take, rest });
    }
    if (lens !== undefined) {
      const [take, rest] = [() => taking.lens(lens), { ...guess, lens: undefined }];
      parts.push({ key: 'lens', label: `the guessed lens, ${lens} mm`, take, rest });
    }
    if (eyeHeight !== undefined) {
      const [take, rest] = [() => taking.eyeHeight(eyeHeight), { ...guess, eyeHeight: undefined }];
      parts.push({ key: 'eye', label: `the guessed eye height, ${eyeHeight.toFixed(1)} m`, take, rest });
    }
    const each = <K extends Listed>(
      name: K,
      label: (one: PlanGuess[K][number]) => string,
      take: (one: PlanGuess[K][number]) => void | Promise<void>,
    ) =>
      guess[name].forEach((one, i) =>
        parts.push({
          ...{ key: one.id, label: `guessed ${label(one)}${i + 1}`, take: () => take(one) },
          rest: { ...guess, [name]: guess[name].filter(({ id }) => id !== one.id) },
        }),
      );
    each('walls', () => 'wall w', taking.wall);
    each('posts', () => 'post p', taking.post);
    each('decks', () => 'deck d', taking.deck);
    each('things', ({ is }) => `${THING_KINDS[is].title.toLowerCase()} t`, taking.thing);
    return parts;
  };
}

/** What puts parts of a guess into the plan, as far as it has room for them. */
function useTaking() {
  const run = useScene((state) => state.run);
  const { scene: store } = useSession();
  const standing = useStanding();
  const now = () => store.getState().scene;
  return {
    horizon: (horizon: Scene['plan']['horizon']) => run(setPlan('Guessed horizon', { horizon })),
    lens: (lens: number) => run(setPlan('Guessed lens', { lens })),
    eyeHeight: (eyeHeight: number) => run(setPlan('Guessed eye height', { eyeHeight })),
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
    ...standing,
  };
}
