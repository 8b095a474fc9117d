/** Smallest size that is told from a point. */
const POINT = 1e-6;

/**
 * The mean over a source's disc of the cosine under which a surface sees it, 0 where the disc lies wholly behind the surface: the cosine of
 * its middle where all of it is before it, and a parabola from there to nothing where the surface's horizon cuts it. Of a sphere on the
 * horizon that is a quarter of its size; the exact value is 2 / (3 pi) of it.
 *
 * @param cosine between the surface's normal and the way to the source's middle, below 0 behind it
 * @param size sine of the angle from the source's middle to its rim, as the surface sees it
 */
export function facedBy(cosine: number, size: number): number {
  const above = Math.max(0, cosine + size);
  const cut = Math.min(above, 2 * size);
  return (cut * cut) / (4 * Math.max(POINT, size)) + above - cut;
}

/**
 * What the square of a source's size adds to that of the horizontal part of the way to it, where a surface's turn is not known: over all
 * turns a source right above or below is faced by the quarter that `facedBy` gives on the horizon.
 */
export const FACED_ASIDE = (Math.PI / 4) ** 2;
