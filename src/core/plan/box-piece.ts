import { onLevel, type PitchedDeck } from './deck-plane';
import type { Vec3 } from '../geometry/vec3';
import type { Camera, PlatePoint } from '../geometry/camera';
import { DULL, standsOn, type DeckPiece, type Standee } from './surfaces';
import { straightPiece, type WallPiece } from './wall-pieces';
import { hypot } from '../plane/hypot';

/** A box in the world: where its near corner stands, its two edges on the ground from there, and its height; metres. */
export interface BoxPiece {
  x: number;
  y: number;
  z: number;
  left: readonly [x: number, y: number];
  right: readonly [x: number, y: number];
  height: number;
}

/** A standee whose edges enclose less than this, square metres, is as flat as a card. */
const FLATTEST = 0.001;

/**
 * How far inside of its faces a box holds light back, metres, and the most of a side that this may be: its own lamps shine out of it, and
 * its round edges throw no shadow on themselves.
 */
const INSIDE = { most: 0.2, share: 0.25 } as const;

/** The level way on the ground, or the deck, from a standee's foot to another place that is seen on it, metres. */
export function levelWay(camera: Camera, [x, y, z]: Vec3, to: PlatePoint): readonly [x: number, y: number] {
  const [toX, toY] = onLevel(camera, z, to);
  return [toX - x, toY - y];
}

/** A standee that is a box, in the world; undefined for one that is a card. */
export function boxPiece(
  camera: Camera,
  { foot, box }: Pick<Standee, 'foot' | 'box'>,
  decks: readonly PitchedDeck[],
): BoxPiece | undefined {
  if (!box) return undefined;
  const at = standsOn(camera, foot, decks);
  const [left, right] = [levelWay(camera, at, box.left), levelWay(camera, at, box.right)];
  if (Math.abs(left[0] * right[1] - left[1] * right[0]) < FLATTEST) return undefined;
  return { x: at[0], y: at[1], z: at[2], left, right, height: box.height };
}

const times = ([x, y]: BoxPiece['left'], by: number) => [x * by, y * by] as const;

/** What of a box holds light back: four walls that end where its matte does, and its lid. */
export function boxShades(
  { x, y, z, left, right, height }: BoxPiece,
  matte: string,
): { walls: WallPiece[]; lid: DeckPiece } {
  const off = (edge: BoxPiece['left']) => Math.min(INSIDE.share, INSIDE.most / hypot(edge[0], edge[1]));
  const [offLeft, offRight] = [off(left), off(right)];
  const [l, r] = [times(left, 1 - 2 * offLeft), times(right, 1 - 2 * offRight)];
  const [inL, inR] = [times(left, offLeft), times(right, offRight)];
  const [fromX, fromY] = [x + inL[0] + inR[0], y + inL[1] + inR[1]];
  const corners = [
    [fromX, fromY],
    [fromX + l[0], fromY + l[1]],
    [fromX + l[0] + r[0], fromY + l[1] + r[1]],
    [fromX + r[0], fromY + r[1]],
  ] as const;
  const top = z + height - Math.min(INSIDE.most, INSIDE.share * height);
  const walls = corners.map((from, k) =>
    straightPiece(from, corners[(k + 1) % 4], { height: top, until: matte, finish: DULL }),
  );
  return { walls, lid: { height: top, riseX: 0, riseY: 0, corners } };
}
