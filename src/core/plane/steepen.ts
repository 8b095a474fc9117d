/** Steepening of a coverage about its middle: a guided edge is a few pixels wider than the plate's. */
const SLOPE = 1.8;

/** A coverage with a steeper edge, 0 to 1. */
export const steepen = (coverage: number) => Math.min(1, Math.max(0, (coverage - 0.5) * SLOPE + 0.5));
