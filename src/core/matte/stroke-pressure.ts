/** Speed at which a stroke without a pen is pressed half as hard, plate widths a second. */
const HALF_SPEED = 0.6;

/** Share of the way to a new pressure within one step, so that it never jumps. */
const FOLLOW = 0.25;

/**
 * Pressure for people without a pen, from the speed of the pointer: slow is firm, fast is light. 0 to 1.
 *
 * @param before pressure at the step before
 * @param way fraction of the plate's width
 * @param seconds since the step before
 */
export function pressureFromSpeed(before: number, way: number, seconds: number): number {
  const speed = way / Math.max(1e-3, seconds);
  const wanted = 1 / (1 + speed / HALF_SPEED);
  return before + FOLLOW * (wanted - before);
}
