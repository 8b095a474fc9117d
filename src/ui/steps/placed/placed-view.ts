import { removePlaced } from '@/core/scene/placed-commands';
import type { PlatePoint } from '@/core/geometry/camera';
import type { SmallCopy } from '@/state/work/small-copy';
import type { Slice } from '../../view/slice';

/** A picture on its way in, as it is seen meanwhile. */
export interface Arriving {
  name: string;
  copy: SmallCopy;
  at: PlatePoint;
}

/** Parts of what is set of a placed picture; one is open at a time. */
export const PLACED_PARTS = ['stand', 'match', 'surface'] as const;
export type PlacedPartName = (typeof PLACED_PARTS)[number];

export interface PlacedView {
  /** The chosen placed picture. */
  placed?: string;
  placedPart?: PlacedPartName;
  arriving?: Arriving;
  /** Whether it is being cut out. */
  cutting: boolean;
}

export const placedView: Slice<PlacedView> = {
  initial: { placedPart: 'stand', cutting: false },
  escape: { placed: undefined, cutting: false },
  leave: { cutting: false },
  also: (values) => ('placed' in values ? { cutting: false } : {}),
  deeds: ({ scene, session, set }) => [
    { label: 'Place a picture', run: () => set({ step: 'placed', placed: undefined }) },
    ...scene.placed.flatMap(({ id, name }) => [
      { label: `Choose ${name}`, run: () => set({ step: 'placed', placed: id }) },
      { label: `Cut out ${name}`, run: () => set({ step: 'placed', placed: id, cutting: true }) },
      { label: `Remove ${name}`, run: () => session.scene.getState().run(removePlaced(id)) },
    ]),
  ],
};
