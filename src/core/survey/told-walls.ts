import type { PlatePoint } from '../geometry/camera';
import { horizonAt } from '../geometry/ground';
import { fromLeft, lineAt } from '../geometry/line-at';

/** A straight piece of a wall's foot as a person drew it. */
export interface ToldWall {
  from: PlatePoint;
  to: PlatePoint;
  /** How far it rises toward the horizon: 1 for a wall as high as the eye, more for a higher one. */
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
    foot.slice(1).map((to, i) => ({ from: foot[i], to, rises: height / eyeHeight })),
  );

/** What told walls say of the pixels of a small plate. */
export interface ToldCover {
  /** 1 on walls, between their foot and the horizon, or their top. */
  wall: Uint8Array;
  /** 1 where ground begins under a foot. */
  under: Uint8Array;
}

/** A column of a small plate in which a wall stands: where the horizon, its foot and its top are seen, fractions of the height. */
export interface WallColumn {
  x: number;
  level: number;
  foot: number;
  top: number;
}

function columnsOf(
  { from, to, rises }: ToldWall,
  horizon: { left: number; right: number },
  width: number,
): WallColumn[] {
  const [a, b] = fromLeft(from, to);
  const first = Math.max(0, Math.ceil(a.u * width - 0.5));
  const last = Math.min(width - 1, Math.floor(b.u * width - 0.5));
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, k) => {
    const u = (first + k + 0.5) / width;
    const [level, foot] = [horizonAt(horizon, u), lineAt([a, b], u)];
    return { x: first + k, level, foot, top: foot + rises * (level - foot) };
  });
}

/** The columns of a small plate in which walls stand: of the one whose top is seen highest. */
export function columnsOfWalls(
  walls: readonly ToldWall[],
  horizon: { left: number; right: number },
  width: number,
): WallColumn[] {
  const highest: WallColumn[] = [];
  for (const column of walls.flatMap((piece) => columnsOf(piece, horizon, width)))
    if (!(highest[column.x]?.top <= column.top)) highest[column.x] = column;
  return highest.filter(Boolean);
}

/** The pixels of some rows under the foot of a wall, as far as they lie in the picture. */
const rowsUnder = (
  piece: ToldWall,
  horizon: { left: number; right: number },
  width: number,
  height: number,
  rowsOf: (foot: number) => readonly [from: number, to: number],
): number[] =>
  columnsOf(piece, horizon, width).flatMap(({ x, foot }) => {
    const [from, to] = rowsOf(foot);
    const first = Math.max(0, from);
    const rows = Math.max(0, Math.min(height, to) - first);
    return Array.from({ length: rows }, (_, k) => (first + k) * width + x);
  });

/** Rows under a foot that are ground, as far as nothing stands before it. */
const UNDER_ROWS = 2;

/** The pixels right under the foot of a wall, as far as they lie in the picture. */
export function underFoot(
  piece: ToldWall,
  horizon: { left: number; right: number },
  width: number,
  height: number,
): number[] {
  const rows = (foot: number) => {
    const from = Math.round(foot * height);
    return [from, from + UNDER_ROWS] as const;
  };
  return rowsUnder(piece, horizon, width, height, rows);
}

/** What lies before a wall: from how far under its foot, that may be guessed too high, down to where, shares of the height. */
const BEFORE = { from: 0.03, to: 0.12 } as const;

/** The pixels of a strip before a wall, a little under its foot. */
export function beforeFoot(
  piece: ToldWall,
  horizon: { left: number; right: number },
  width: number,
  height: number,
): number[] {
  const row = (foot: number, under: number) => Math.round((foot + under) * height);
  const rows = (foot: number) => [row(foot, BEFORE.from), row(foot, BEFORE.to)] as const;
  return rowsUnder(piece, horizon, width, height, rows);
}

/** Where told walls stand, and where ground begins under them. Of walls behind one another the nearest hides the ground of the others. */
export function coverOfWalls(
  walls: readonly ToldWall[],
  horizon: { left: number; right: number },
  width: number,
  height: number,
): ToldCover {
  const wall = new Uint8Array(width * height);
  const under = new Uint8Array(width * height);
  for (const { x, level, top, foot } of walls.flatMap((piece) => columnsOf(piece, horizon, width))) {
    const from = Math.max(0, Math.round(Math.max(level, top) * height));
    const until = Math.min(height, Math.round(foot * height));
    for (let y = from; y < until; y++) wall[y * width + x] = 1;
  }
  for (const i of walls.flatMap((piece) => underFoot(piece, horizon, width, height)))
    if (!wall[i]) under[i] = 1;
  return { wall, under };
}
