import { setDesk } from '@/core/scene/commands';
import { bringGlintsBack } from '@/core/scene/lens-commands';
import type { Glint } from '@/core/lens/glint';
import { isUp } from '@/core/fields/fader-gain';
import { RANGES } from '@/core/fields/ranges';
import type { PlatePoint } from '@/core/geometry/camera';
import type { Slice } from '../../view/slice';

/** Parts of the step; one is open at a time. */
export const LENS_PARTS = ['spikes', 'sources', 'veil', 'grain'] as const;
export type LensPartName = (typeof LENS_PARTS)[number];

export interface LensView {
  lensPart?: LensPartName;
  /** The sources that have spikes, as they were found last. */
  glints: readonly Glint[];
  /** The place of the one that is set apart from the rest, and of others that are set with it. */
  glint?: PlatePoint;
  glintsAlso: readonly PlatePoint[];
  /** What a stroke over sources does. */
  sweep: 'take' | 'give';
}

export const lensView: Slice<LensView> = {
  initial: { lensPart: 'spikes', glints: [], glintsAlso: [], sweep: 'take' },
  escape: { glint: undefined },
  leave: { glint: undefined },
  // Whatever chooses one lets go of the others.
  also: (values) => ('glint' in values && !('glintsAlso' in values) ? { glintsAlso: [] } : {}),
  deeds: ({ scene, session, set }) => {
    const { run } = session.scene.getState();
    const toggle = (channel: 'spikes' | 'veil', name: string) => {
      const shows = isUp(scene.desk[channel]);
      return {
        label: shows ? `Take the ${channel} of the lens away` : `Give the lens its ${channel}`,
        run: () => run(setDesk(name, { [channel]: shows ? RANGES.level.min : 0 })),
      };
    };
    return [
      toggle('spikes', 'Spikes'),
      toggle('veil', 'Veil'),
      { label: 'Bring back what was found', run: () => run(bringGlintsBack()) },
      ...LENS_PARTS.map((lensPart) => ({
        label: `Set the ${lensPart} of the lens`,
        run: () => set({ step: 'lens', lensPart }),
      })),
    ];
  },
};
