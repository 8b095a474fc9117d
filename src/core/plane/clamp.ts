/** A number no less than `least` and no more than `most`. */
export const clamp = (value: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, value));
