import type { EdgeStroke, PaintStroke } from '@/core/matte/pass';
import type { CoverageView } from '@/core/matte/show-coverage';
import type { Slice } from '../../view/slice';

export interface MattesView {
  /** The chosen matte, the pass of it that the picture sets, and how it is looked at. */
  matte?: string;
  pass?: string;
  matteView: CoverageView | 'off';
  /** How the next stroke is painted. */
  brush: Omit<PaintStroke, 'path'>;
  /** What the next stroke of the edge brush does. */
  edgeAct: EdgeStroke['act'];
  /** An outline's next points follow the plate's edges. */
  following: boolean;
  /** An edge is being looked for. */
  finding: boolean;
}

export const mattesView: Slice<MattesView> = {
  initial: {
    matteView: 'tint',
    brush: { size: 0.03, soft: 0.6, flow: 0.5, strength: 1, erase: false, pressure: 'flow' },
    edgeAct: 'loop',
    following: false,
    finding: false,
  },
  // The chosen matte is looked at while mattes are made.
  asks: ({ step, matte, matteView }) => ({
    show: step === 'mattes' && matte && matteView !== 'off' ? { matte, view: matteView } : undefined,
  }),
};
