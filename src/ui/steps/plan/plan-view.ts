import { FINISHES } from '@/core/plan/finishes';
import type { PlatePoint } from '@/core/geometry/camera';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import type { Said } from '@/core/survey/said';
import { setGround } from '@/core/scene/commands';
import type { GroundPlan } from '@/core/scene/schema';
import type { PlanGuess } from '@/state/actions/plan-guess';
import type { Slice } from '../../view/slice';

export interface PlanView {
  /** The chosen surface of the ground plan, and what the next drag on the picture draws there. */
  surface?: string;
  drawing?: 'wall' | 'deck' | 'parallels' | 'scale' | 'say';
  /** What the brush says that a place is, its radius as a fraction of the plate's width, and where keys have moved it. */
  saying: Said;
  sayingSize: number;
  sayingAt: PlatePoint;
  /** The first of two lines that are parallel in the world. */
  parallel?: PlateLine;
  /** An upright thing whose height is known: foot and top. */
  measured?: PlateLine;
  /** What was guessed of the ground plan and waits to be taken. */
  guess?: PlanGuess;
  /** The ground plan is shown as a pop-up. */
  popUp: boolean;
  /** The plan as it was when the drag of the horizon or of a wall began. */
  surveyAt?: GroundPlan;
}

export const planView: Slice<PlanView> = {
  initial: { popUp: false, saying: 'ground', sayingSize: 0.02, sayingAt: { u: 0.5, v: 0.75 } },
  escape: {
    ...{ drawing: undefined, popUp: false, parallel: undefined },
    ...{ measured: undefined, guess: undefined },
  },
  asks: ({ surveyAt }) => ({ surveyAt }),
  deeds: ({ session }) =>
    (['dry', 'damp', 'wet'] as const).map((finish) => ({
      label: `Make the ground ${finish}`,
      run: () => session.scene.getState().run(setGround(`Ground: ${finish}`, FINISHES[finish])),
    })),
};
