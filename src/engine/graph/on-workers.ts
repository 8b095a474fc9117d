import type { Region } from '@/core/plane/region';
import { allOf } from '../all-of';
import { TILE } from '../kernels/layout';
import type { Arena } from '../memory/arena';
import type { NodeStore } from '../memory/node-store';
import type { Pool } from '../pool/pool';
import type { AnyStage } from './stage-spec';
import { takenAt, type Piece, type Rows, type Task } from './task';

/** Pixels of a heavy task: few enough that an outdated frame is soon given up. */
const BAND_PIXELS = 80_000;

/** Bands are whole rows of the kernels' tiles, so that a picture does not depend on how many workers make it. */
const BAND_ROWS = TILE.HEIGHT;

interface Means {
  arena: Arena;
  pool: Pool;
  store: NodeStore;
}

/** Runs a stage's work over a region on all workers; waits for every one even when one fails. */
export async function onWorkers(
  means: Means,
  { pace, whole }: AnyStage,
  { height, width }: Region,
  pieces: Piece[],
  signal: AbortSignal,
): Promise<void> {
  const { pool } = means;
  const all = { from: 0, to: height };
  if (whole) return pool.run({ pieces, rows: all }, signal);
  if (pace === 'quick') return share(means, { pieces, rows: all }, signal);
  const least = height / Math.max(pool.size, Math.ceil((width * height) / BAND_PIXELS));
  const step = BAND_ROWS * Math.ceil(least / BAND_ROWS);
  const bands: Rows[] = [];
  for (let from = 0; from < height; from += step) bands.push({ from, to: Math.min(height, from + step) });
  await allOf(bands.map((rows) => pool.run({ pieces, rows }, signal)));
}

/** Runs one task on all workers, each of which takes rows until none are left: they end together. */
async function share({ arena, pool, store }: Means, task: Task, signal: AbortSignal): Promise<void> {
  const counter = store.allocate(4);
  takenAt(arena.memory, counter.offset).fill(0);
  const shared = { ...task, taken: counter.offset };
  try {
    await allOf(Array.from({ length: pool.size }, () => pool.run(shared, signal)));
  } finally {
    arena.release(counter);
  }
}
