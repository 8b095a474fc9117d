/** Steepening of a coverage about its middle: a guided edge is a few pixels wider than the plate's. */
const SLOPE = 1.8;

/** Up to where a coverage steepens to 0, and from where to 1. */
export const STEEP_FROM = 0.5 - 0.5 / SLOPE;
export const STEEP_TO = 0.5 + 0.5 / SLOPE;

/** A coverage with a steeper edge, 0 to 1. */
export const steepen = (coverage: number) => Math.min(1, Math.max(0, (coverage - 0.5) * SLOPE + 0.5));
