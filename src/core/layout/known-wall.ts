import type { PlatePoint } from '../geometry/camera';
import { fromLeft, lineAt } from '../geometry/line-at';
import type { PlateLine } from '../geometry/vanishing-point';

/** A wall that was drawn, or taken: the corners of its foot, and its height in metres. */
interface KnownWall {
  foot: readonly PlatePoint[];
  height: number;
}

/** The straight pieces of a wall's foot, each from the left to the right. */
export const piecesOf = ({ foot }: { foot: readonly PlatePoint[] }) =>
  foot.slice(1).map((to, k) => fromLeft(foot[k], to));

/** From where to where something goes across the picture, fractions of its width. */
type Span = readonly [from: number, to: number];

const PICTURE: Span = [0, 1];
const spanOf = ([from, to]: PlateLine): Span => [from.u, to.u];
const shared = ([a, b]: Span, [c, d]: Span): Span => [Math.max(a, c), Math.min(b, d)];

/** Feet that lie so near to each other, fraction of the height, are of one wall. */
const ONE_WALL = 0.03;

/** Whether a straight foot lies along one that is there, where both are seen. */
function isAlong(own: Pick<KnownWall, 'foot'>, foot: PlateLine): boolean {
  return piecesOf(own).some((piece) => {
    const [from, to] = shared(spanOf(piece), spanOf(foot));
    const isOne = (u: number) => Math.abs(lineAt(piece, u) - lineAt(foot, u)) < ONE_WALL;
    return to - from > (foot[1].u - foot[0].u) / 2 && isOne(from) && isOne(to);
  });
}

/** Share of a foot that is seen, across the picture, before which no wall is guessed. */
const BEFORE_MOST = 0.5;

/** Whether a straight foot lies before most of one that is there: that was seen, so no wall hides it. */
function hides(own: Pick<KnownWall, 'foot'>, foot: PlateLine): boolean {
  return piecesOf(own).some((piece) => {
    const [left, right] = shared(PICTURE, spanOf(piece));
    const [from, to] = shared([left, right], spanOf(foot));
    const isBefore = (u: number) => lineAt(foot, u) > lineAt(piece, u);
    return to - from > BEFORE_MOST * (right - left) && isBefore(from) && isBefore(to);
  });
}

/** Share of a guessed foot, as far as it is seen, that walls may hide. */
const HIDDEN = 0.6;

/** Whether a straight foot lies behind a wall that is there and higher than the eye, where both are seen. */
function isBehind({ foot: own, height }: KnownWall, foot: PlateLine, eyeHeight: number): boolean {
  const [left, right] = shared(PICTURE, spanOf(foot));
  const hidden = piecesOf({ foot: own }).map((piece) => {
    const [from, to] = shared([left, right], spanOf(piece));
    const u = (from + to) / 2;
    return to > from && lineAt(piece, u) > lineAt(foot, u) ? to - from : 0;
  });
  return height > eyeHeight && hidden.reduce((sum, share) => sum + share, 0) > HIDDEN * (right - left);
}

/**
 * Whether a wall that is there leaves no room for one on a straight foot, which runs from the left to the right: it is the same, or one would
 * hide the other.
 *
 * @param eyeHeight metres
 */
export const excludes = (own: KnownWall, foot: PlateLine, eyeHeight: number): boolean =>
  isAlong(own, foot) || hides(own, foot) || isBehind(own, foot, eyeHeight);
