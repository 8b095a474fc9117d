import type { PlatePoint } from '@/core/geometry/camera';
import type { Slice } from './slice';

/** How the picture is looked at: fitted into the view, or at so many device pixels a plate pixel around a place. */
export interface Look {
  zoom: 'fit' | number;
  center: PlatePoint;
}

export const FITTED: Look = { zoom: 'fit', center: { u: 0.5, v: 0.5 } };

/** The night alone, the night wiped over the day, or the two beside each other. */
export const PROOFS = ['night', 'wipe', 'beside'] as const;
export type Proof = (typeof PROOFS)[number];

export interface LookView {
  look: Look;
  /** How day and night are compared. */
  proof: Proof;
  /** Where the wipe stands, 0 to 1 across the view: night to its left. */
  wipe: number;
  /** The day is shown instead of the night. */
  day: boolean;
  /** Values are read off the picture under the pointer. */
  probing: boolean;
}

const PROOF_NAMES: Record<Proof, string> = {
  night: 'the night alone',
  wipe: 'night wiped over day',
  beside: 'night and day beside each other',
};

/** How the picture is looked at, whatever step is open. */
export const lookView: Slice<LookView> = {
  initial: { look: FITTED, proof: 'night', wipe: 0.5, day: false, probing: false },
  deeds: ({ set }) => [
    { label: 'Read values off the picture', run: () => set({ probing: true }) },
    { label: 'Fit the picture into the view', run: () => set({ look: FITTED }) },
    ...PROOFS.map((proof) => ({ label: `Show ${PROOF_NAMES[proof]}`, run: () => set({ proof }) })),
  ],
};
