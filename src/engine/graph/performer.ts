import type { Region } from '@/core/plane/region';
import type { Kernels } from '../kernels/kernels';
import { TILE } from '../kernels/layout';
import type { AnyStage } from './stage-spec';
import { takenAt, type Piece, type Rows, type Task } from './task';
import { bandOf, loadedIn, viewOf, viewsOf, type View } from './view';

/** Pixels that a worker takes at a time of a shared task, about: few enough to stay in the cache from one piece to the next. */
const SHARED_PIXELS = 12_000;

/** Into how many parts a shared task is cut at least, as far as it has as many rows of tiles: workers end together. */
const LEAST_PARTS = 4;

/** Rows that a worker takes at a time, of the kernels' tiles. */
function sharedRows({ width, height }: Region): number {
  const tiles = Math.min(SHARED_PIXELS / width, height / LEAST_PARTS) / TILE.HEIGHT;
  return TILE.HEIGHT * Math.max(1, Math.round(tiles));
}

/** Does tasks on one shared memory, with kernels or with their twins in the core. Each stage's kit is made once. */
export function createPerformer(
  stages: readonly AnyStage[],
  memory: WebAssembly.Memory,
  kernels?: Kernels,
): (task: Task) => void {
  const byName = new Map(stages.map((stage) => [stage.name, stage]));
  const kits = new Map<string, unknown>();

  function kitOf({ name, kit }: AnyStage): unknown {
    if (kit && !kits.has(name)) kits.set(name, kit());
    return kits.get(name);
  }

  /** A piece with its views, ready to fill rows. */
  function ready({ stage: name, out, inputs, prepared, loaded }: Piece): (rows: Rows) => void {
    const stage = byName.get(name);
    if (!stage) throw new Error(`No stage has the name "${name}".`);
    const work = { prepared, kernels, kit: kitOf(stage), loaded: loaded && loadedIn(memory, loaded) };
    const made = viewOf(memory, out) as View<any>; // eslint-disable-line @typescript-eslint/no-explicit-any -- its stage knows the names
    const views = viewsOf(memory, inputs);
    return (rows) => stage.run(made, views, work, bandOf(out.region, rows));
  }

  return ({ pieces, rows: { from, to }, taken }) => {
    const all = pieces.map(ready);
    const fill = (first: number, end: number) => {
      const rows = { from: first, to: Math.min(to, end) };
      for (const one of all) one(rows);
    };
    if (taken === undefined) return fill(from, to);
    const count = takenAt(memory, taken);
    const step = sharedRows(pieces[0].out.region);
    const next = () => from + Atomics.add(count, 0, step);
    for (let row = next(); row < to; row = next()) fill(row, row + step);
  };
}
