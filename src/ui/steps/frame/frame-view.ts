import type { Slice } from '../../view/slice';

export interface FrameView {
  /** The next drag on the picture is along something level. */
  levelling: boolean;
}

export const frameView: Slice<FrameView> = { initial: { levelling: false }, leave: { levelling: false } };
