import type { RippledFinish } from './surfaces';

/** Ready-made finishes: what pavings, roads and water are like by night. A dry surface has the sheen of what is dull alone. */
export const FINISHES = {
  dry: { sheen: 0, roughness: 0.3, crease: 0 },
  damp: { sheen: 0.3, roughness: 0.35, crease: 0 },
  wet: { sheen: 0.5, roughness: 0.2, crease: 0.1 },
  water: { sheen: 0.7, roughness: 0.2, crease: 0.2 },
} as const satisfies Record<string, RippledFinish>;
