import type { Finish, Gloss, RippledFinish } from './surfaces';

/** Ready-made finishes: what pavings, roads and water are like by night. A dry surface has the sheen of what is dull alone. */
export const FINISHES = {
  dry: { sheen: 0, roughness: 0.3, crease: 0 },
  damp: { sheen: 0.3, roughness: 0.35, crease: 0 },
  wet: { sheen: 0.5, roughness: 0.2, crease: 0.1 },
  water: { sheen: 0.7, roughness: 0.2, crease: 0.2 },
} as const satisfies Record<string, RippledFinish>;

/** Ready-made glosses: how they lean back, degrees, how they bulge, and what they give back. */
export const GLOSS_FORMS = {
  glass: { lean: 0, roundness: 0, sheen: 1, roughness: 0.1 },
  windscreen: { lean: 60, roundness: 0.1, sheen: 1, roughness: 0.1 },
  bonnet: { lean: 80, roundness: 0.2, sheen: 0.5, roughness: 0.15 },
} as const satisfies Record<string, Pick<Gloss, 'lean' | 'roundness' | keyof Finish>>;
