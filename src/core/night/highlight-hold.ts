/** Luminance at which half of the hold has set in, of a plate whose land stands for middle grey. */
export const HOLD_MIDDLE = 0.35;

/**
 * What is left of ambient light on a place of the plate: all of it on dark ones, `1 - hold` of it on the brightest, with a
 * soft transition about `middle`. White walls, pale sky and sunlit patches sink, so that they do not give the day away.
 */
export function highlightHold(plateLuminance: number, hold: number, middle = HOLD_MIDDLE): number {
  const l2 = plateLuminance * plateLuminance;
  return 1 - (hold * l2) / (l2 + middle * middle);
}
