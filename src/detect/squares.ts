/** A part of a picture, fractions of its width and height. */
export interface Part {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Side of the nearer squares as a share of the picture's height, and how far their middles lie under the horizon. */
const NEARER = { side: 0.8, under: 0.08 } as const;

/** From one of them to the next, as a share of their side; most of them. */
const STRIDE = 0.9;
const MOST = 4;

/**
 * The parts of a picture that are looked at, each as a square: the whole of it, and nearer ones along the horizon, where things are
 * small.
 *
 * @param aspect width over height
 * @param horizon its height in the middle, fraction of the picture's
 */
export function squaresOf(aspect: number, horizon: number): Part[] {
  const side = Math.min(NEARER.side, aspect);
  const across = side / aspect;
  const top = Math.min(1 - side, Math.max(0, horizon + NEARER.under - side / 2));
  const count = Math.min(MOST, 1 + Math.ceil((1 - across) / (STRIDE * across) - 1e-9));
  const nearer = Array.from({ length: count }, (_, k) => {
    const left = count > 1 ? (k / (count - 1)) * (1 - across) : (1 - across) / 2;
    return { left, top, right: left + across, bottom: top + side };
  });
  return [{ left: 0, top: 0, right: 1, bottom: 1 }, ...nearer];
}
