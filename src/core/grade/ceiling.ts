/** Share of the ceiling under which tones are left alone. */
const KNEE = 0.5;

/**
 * Holds a tone under a ceiling: unchanged in the lower half, then bent ever flatter, so that white lands on the ceiling.
 * A ceiling of 1 leaves everything as it is. Tones and ceiling 0 to 1.
 */
export function underCeiling(tone: number, ceiling: number): number {
  const knee = KNEE * ceiling;
  if (tone <= knee || ceiling >= 1) return tone;
  const over = tone - knee;
  return knee + over / (1 + over * ceilingBend(ceiling));
}

/** How strongly tones over the knee are bent: from slope 1 at the knee to the ceiling at white. */
export function ceilingBend(ceiling: number): number {
  const knee = KNEE * ceiling;
  return 1 / Math.max(1e-6, ceiling - knee) - 1 / (1 - knee);
}

/** The tone from which a ceiling bends. */
export const ceilingKnee = (ceiling: number): number => KNEE * ceiling;
