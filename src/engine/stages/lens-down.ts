/** Faders that say nothing of the light before the lens, set to where they do nothing to a key. */
export const LENS_DOWN = { spikes: 0, veil: 0 } as const;
