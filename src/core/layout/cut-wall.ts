import type { PlatePoint } from '../geometry/camera';
import { isBeside, onSlope, placesApart, slopeOf, type Side } from './wall-side';
import type { Span } from './wall-spans';

/** Uprights that end so near to the lower edge of the plate, fraction of the height, go on below it. */
const CUT = 0.95;

/** So many of them, so far apart, fractions of the width, and so much that they tell, widths, are of a wall: a post and its lamp are fewer. */
const ENOUGH = { places: 5, apart: 0.012, trust: 0.4 } as const;

/** How far below the plate the foot is taken to lie at least, fraction of the height; from where on it goes on to the plate's border. */
const BELOW = { least: 1.02, border: 0.13 } as const;

/**
 * The foot of a wall that the plate's lower edge cuts off, as a shop seen from before it: uprights run down to that edge, and no ground is seen.
 * Where it stands nobody can say; it is taken to meet the ground just out of sight.
 */
export function cutFoot(
  own: Side,
  uprights: readonly { foot: PlatePoint; counts: number }[],
  { from, to }: Span,
) {
  const cut = uprights.filter(
    ({ foot }) => foot.v > CUT && foot.u > from && foot.u < to && isBeside(own, foot.u),
  );
  const trust = cut.reduce((sum, { counts }) => sum + counts, 0);
  const places = placesApart(
    cut.map(({ foot }) => foot.u),
    ENOUGH.apart,
  );
  if (places < ENOUGH.places || trust < ENOUGH.trust) return undefined;
  const left = own.side > 0 && own.place.u > 0 ? from : from < BELOW.border ? 0 : from;
  const right = own.side < 0 && own.place.u < 1 ? to : to > 1 - BELOW.border ? 1 : to;
  const slope = Math.max(...[left, right].map((u) => slopeOf(own, { u, v: BELOW.least })));
  const foot: [PlatePoint, PlatePoint] = [onSlope(own, left, slope), onSlope(own, right, slope)];
  return { foot, trust };
}
