import { rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { FARTHEST_GROUND } from '../geometry/ground';
import { hypot } from '../plane/hypot';

/** The plane of a deck: how high it lies over the ground under the eye, metres, and how much it rises a metre to the right and ahead. */
export interface DeckPlane {
  height: number;
  riseX: number;
  riseY: number;
}

/** A deck as its plane is told: its outline as it is seen, how high its eave lies, metres, and how steeply it rises from there, degrees. */
export interface PitchedDeck {
  outline: readonly PlatePoint[];
  height: number;
  pitch?: number;
}

/** Edges of an outline shorter than this share of the longest are no eave. */
const SHORT = 0.25;

/** How far along a ray from the eye a level surface is met; Infinity where it is not. */
export function intersectLevel(height: number, eyeHeight: number, rise: number): number {
  const reach = (height - eyeHeight) / rise;
  return reach > 0 && Number.isFinite(reach) ? reach : Infinity;
}

/** How far along a ray from the eye a deck's plane is met; Infinity where it is not. */
export const intersectDeck = (
  { height, riseX, riseY }: DeckPlane,
  eyeHeight: number,
  aside: number,
  ahead: number,
  rise: number,
): number => intersectLevel(height, eyeHeight, rise - riseX * aside - riseY * ahead);

/** The height of a deck's plane over a place of the ground, metres. */
export const heightOver = ({ height, riseX, riseY }: DeckPlane, x: number, y: number): number =>
  height + riseX * x + riseY * y;

/** The lowest edge of an outline, as it is seen: where a slope begins. */
export function eaveOf(outline: readonly PlatePoint[]): readonly [from: PlatePoint, to: PlatePoint] {
  const edges = outline.map((from, k) => [from, outline[(k + 1) % outline.length]] as const);
  const long = ([a, b]: (typeof edges)[number]) => hypot(b.u - a.u, b.v - a.v);
  const longest = Math.max(...edges.map(long));
  return edges
    .filter((edge) => long(edge) >= SHORT * longest)
    .reduce((lowest, edge) => (edge[0].v + edge[1].v > lowest[0].v + lowest[1].v ? edge : lowest));
}

/** Where a place of the plate is seen on a level, metres to the right and ahead; what never lies there is very far off. */
export function onLevel(camera: Camera, height: number, at: PlatePoint): readonly [x: number, y: number] {
  const ray = rayThrough(camera, at);
  const reach = Math.min(
    intersectLevel(height, camera.eyeHeight, ray[2]),
    FARTHEST_GROUND / Math.max(ray[1], 1e-6),
  );
  return [ray[0] * reach, ray[1] * reach];
}

/** The way away from the eye across an eave, of unit length; undefined where an eave has no direction. */
function acrossEave([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]) {
  const long = hypot(bx - ax, by - ay);
  if (!(long > 1e-6)) return undefined;
  const [x, y] = [(by - ay) / long, (ax - bx) / long];
  return x * ax + y * ay < 0 ? ([-x, -y] as const) : ([x, y] as const);
}

/** The plane of a deck. One with a pitch rises away from the eye, from its eave on. */
export function deckPlane(camera: Camera, { outline, height, pitch = 0 }: PitchedDeck): DeckPlane {
  const level = { height, riseX: 0, riseY: 0 };
  if (pitch === 0) return level;
  const [a, b] = eaveOf(outline).map((at) => onLevel(camera, height, at));
  const away = acrossEave(a, b);
  if (!away) return level;
  const steep = Math.tan((pitch * Math.PI) / 180);
  const [riseX, riseY] = [steep * away[0], steep * away[1]];
  return { height: height - riseX * a[0] - riseY * a[1], riseX, riseY };
}

/**
 * The pitch with which a deck meets a place that lies behind its eave, degrees: where its upper edge hangs on a wall. Undefined
 * where that is right over the eave.
 */
export function pitchTo(
  camera: Camera,
  { outline, height }: PitchedDeck,
  [x, y, z]: readonly [x: number, y: number, z: number],
): number | undefined {
  const [a, b] = eaveOf(outline).map((at) => onLevel(camera, height, at));
  const away = acrossEave(a, b);
  const behind = away && (x - a[0]) * away[0] + (y - a[1]) * away[1];
  if (!behind || behind < 0.05) return undefined;
  return (Math.atan2(z - height, behind) * 180) / Math.PI;
}
