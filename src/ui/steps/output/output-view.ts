import type { Switching } from '@/core/output/switching';
import type { Scene } from '@/core/scene/schema';
import type { Slice } from '../../view/slice';

export interface OutputView {
  /** The part that is open beside the picture's own. */
  outputPart?: 'switching' | 'table';
  /** What is played in the picture. */
  playing?: Switching;
  /** The scene as it is played, picture by picture. */
  trial?: Scene;
}

/** What ends a play. */
export const NO_PLAY = { playing: undefined, trial: undefined } satisfies Partial<OutputView>;

/** What the way out shows. */
export const outputView: Slice<OutputView> = {
  initial: {},
  escape: NO_PLAY,
  leave: NO_PLAY,
  shows: (scene, { trial }) => trial ?? scene,
};
