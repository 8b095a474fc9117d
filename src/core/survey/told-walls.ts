import type { PlatePoint } from '../geometry/camera';
import { horizonAt } from '../geometry/ground';
import { lineAt } from '../geometry/line-at';

/** A straight piece of a wall's foot as a person drew it. */
export interface ToldWall {
  from: PlatePoint;
  to: PlatePoint;
  /** How far it rises toward the horizon: 1 for a wall as high as the eye or higher. */
  rises: number;
}

/** A wall as the ground plan holds it: the corners of its foot, and its height, metres. */
interface DrawnWall {
  foot: readonly PlatePoint[];
  height: number;
}

/** The pieces of walls' feet, and how far they rise for an eye at a height, metres. */
export const toldWalls = (walls: readonly DrawnWall[], eyeHeight: number): ToldWall[] =>
  walls.flatMap(({ foot, height }) =>
    foot.slice(1).map((to, i) => ({ from: foot[i], to, rises: Math.min(1, height / eyeHeight) })),
  );

/** What told walls say of the pixels of a small plate. */
export interface ToldCover {
  /** 1 on walls, between their foot and the horizon, or their top. */
  wall: Uint8Array;
  /** 1 where ground begins under a foot. */
  under: Uint8Array;
}

/** The columns of a small plate in which a piece of a wall stands, and where its foot lies there, fraction of the height. */
function columnsOf({ from, to }: ToldWall, width: number): { x: number; u: number; foot: number }[] {
  const [a, b] = from.u < to.u ? [from, to] : [to, from];
  const first = Math.max(0, Math.ceil(a.u * width - 0.5));
  const last = Math.min(width - 1, Math.floor(b.u * width - 0.5));
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, k) => {
    const u = (first + k + 0.5) / width;
    return { x: first + k, u, foot: lineAt([a, b], u) };
  });
}

/** In each column of a small plate where the foot of the nearest told wall lies, fraction of the height; 0 where none stands. */
export function feetOfWalls(walls: readonly ToldWall[], width: number): Float32Array {
  const feet = new Float32Array(width);
  for (const { x, foot } of walls.flatMap((piece) => columnsOf(piece, width)))
    feet[x] = Math.max(feet[x], foot);
  return feet;
}

/** Rows under a foot that are ground, as far as nothing stands before it. */
const UNDER_ROWS = 2;

/** Where told walls stand, and where ground begins under them. Of walls behind one another the nearest hides the ground of the others. */
export function coverOfWalls(
  walls: readonly ToldWall[],
  horizon: { left: number; right: number },
  width: number,
  height: number,
): ToldCover {
  const wall = new Uint8Array(width * height);
  const under = new Uint8Array(width * height);
  const columns = walls.flatMap((piece) =>
    columnsOf(piece, width).map(({ x, u, foot }) => ({
      ...{ x, foot },
      top: foot + piece.rises * (horizonAt(horizon, u) - foot),
    })),
  );
  for (const { x, top, foot } of columns) {
    const from = Math.max(0, Math.round(top * height));
    const until = Math.min(height, Math.round(foot * height));
    for (let y = from; y < until; y++) wall[y * width + x] = 1;
  }
  for (const { x, foot } of columns) {
    const from = Math.max(0, Math.round(foot * height));
    for (let y = from; y < Math.min(height, from + UNDER_ROWS); y++) {
      if (!wall[y * width + x]) under[y * width + x] = 1;
    }
  }
  return { wall, under };
}
