/** Steepening of a coverage about its middle: a guided edge is a few pixels wider than the plate's. */
const FIRM = 1.8;

/** A coverage with a firmer edge, 0 to 1. */
export const firm = (coverage: number) => Math.min(1, Math.max(0, (coverage - 0.5) * FIRM + 0.5));
