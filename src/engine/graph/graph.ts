import type { Region } from '@/core/plane/region';
import { allOf } from '../all-of';
import { TILE } from '../kernels/layout';
import { ArenaFullError, type Arena, type Block } from '../memory/arena';
import type { Node, NodeStore } from '../memory/node-store';
import type { Pool } from '../pool/pool';
import type { RenderAssets } from '../render-assets';
import type { KeptResult } from '../kept-results';
import { arrayType } from './stage';
import type { AnyStage, Loaded, Want } from './stage-spec';
import {
  takenAt,
  type InputRefs,
  type LoadedRef,
  type MadeRefs,
  type Piece,
  type Rows,
  type Task,
} from './task';
import { viewOf, viewsOf, type View } from './view';
import { mapWants, wantsIn } from './wants';

/** Pixels of a heavy task: few enough that an outdated frame is soon given up. */
const BAND_PIXELS = 80_000;

/** Bands are whole rows of the kernels' tiles, so that a picture does not depend on how many workers make it. */
const BAND_ROWS = TILE.HEIGHT;

type Result = Node<MadeRefs>;

/** What a stage's work holds on to until it is done: blocks, and results that are only begun. */
interface Held {
  blocks: Block[];
  begun: Begun[];
}

/** Work that is ready to be done, band by band: that of results which pass comes before that of the stage itself. */
interface Begun extends Result {
  tasks: Piece[];
  end: () => void;
}

/** Makes what is wanted, and what that needs: each result once, in bands on all workers. */
export interface Graph {
  /** Lets `use` see a result; its planes are there until then at least to the end of the frame, a passing one's until `use` returns. */
  see: <V extends View, T>(want: Want<V>, signal: AbortSignal, use: (view: V) => T) => Promise<T>;
  /** Whether a result needs nothing but what is quick. */
  isReady: (want: Want) => boolean;
  /** The part of the picture that is being worked on. */
  underway: () => string | undefined;
}

interface Means {
  arena: Arena;
  pool: Pool;
  store: NodeStore;
  assets: RenderAssets;
}

export function createGraph({ arena, pool, store, assets }: Means): Graph {
  const working = new Set<Want>();
  const release = ({ blocks }: Result) => blocks.forEach(arena.release);

  /** Runs tasks on all workers; waits for every one even when one fails. */
  async function onWorkers(
    { pace, whole }: AnyStage,
    { height, width }: Region,
    signal: AbortSignal,
    pieces: Piece[],
  ) {
    const all = { from: 0, to: height };
    if (whole) return pool.run({ pieces, rows: all }, signal);
    if (pace === 'quick') return share({ pieces, rows: all }, signal);
    const least = height / Math.max(pool.size, Math.ceil((width * height) / BAND_PIXELS));
    const step = BAND_ROWS * Math.ceil(least / BAND_ROWS);
    const bands: Rows[] = [];
    for (let from = 0; from < height; from += step) bands.push({ from, to: Math.min(height, from + step) });
    await allOf(bands.map((rows) => pool.run({ pieces, rows }, signal)));
  }

  /** Runs one task on all workers, each of which takes rows until none are left: they end together. */
  async function share(task: Task, signal: AbortSignal): Promise<void> {
    const counter = store.allocate(4);
    takenAt(arena.memory, counter.offset).fill(0);
    const shared = { ...task, taken: counter.offset };
    try {
      await allOf(Array.from({ length: pool.size }, () => pool.run(shared, signal)));
    } finally {
      arena.release(counter);
    }
  }

  /** Lays planes out. What was taken is in `blocks` even when there is no room for all. */
  function layOut(sizes: Record<string, number>, blocks: Block[]): MadeRefs['planes'] {
    const planes: MadeRefs['planes'] = {};
    for (const [name, length] of Object.entries(sizes)) {
      if (length > 0) blocks.push(store.allocate(4 * length));
      planes[name] = { at: length > 0 ? blocks[blocks.length - 1].offset : 0, length };
    }
    return planes;
  }

  /** Copies what was loaded to where workers see it. */
  function hand({ data }: Loaded, blocks: Block[]): LoadedRef {
    const block = store.allocate(data.byteLength);
    blocks.push(block);
    const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
    new Uint8Array(arena.memory.buffer, block.offset, data.byteLength).set(bytes);
    return { at: block.offset, length: data.length, type: arrayType(data) };
  }

  /** Results of what a stage wants; where it works pixel by pixel, those that pass are only begun. */
  async function inputsOf({ stage, inputs }: Want, signal: AbortSignal, held: Held): Promise<InputRefs> {
    const made = await allOf(
      wantsIn(inputs).map(async (input) => {
        if (stage.pointwise && input.stage.passing) {
          const begun = await begin(input, signal);
          held.begun.push(begun);
          return [input, begun.refs] as const;
        }
        const result = await resultOf(input, signal);
        if (input.stage.passing) held.blocks.push(...result.blocks);
        return [input, result.refs] as const;
      }),
    );
    const refs = new Map(made);
    return mapWants(inputs, (input) => refs.get(input)) as InputRefs;
  }

  /** Readies a stage's own work: its inputs, planes and tasks. What it takes beside its planes is given back by `end`. */
  async function begin(want: Want, signal: AbortSignal): Promise<Begun> {
    const { stage, settings } = want;
    const { region } = want.at;
    const held: Held = { blocks: [], begun: [] };
    const kept: Block[] = [];
    const end = () => {
      working.delete(want);
      held.blocks.forEach(arena.release);
      held.begun.forEach((one) => {
        one.end();
        one.blocks.forEach(arena.release);
      });
    };
    try {
      signal.throwIfAborted();
      const inputs = await inputsOf(want, signal, held);
      working.add(want);
      const loaded = await stage.load?.(assets, settings, region, signal);
      signal.throwIfAborted();
      const prepared: unknown = stage.prepare
        ? stage.prepare({ settings, inputs: viewsOf(arena.memory, inputs), region, loaded })
        : settings;
      const planes = layOut(stage.planes(region.width * region.height, prepared), kept);
      const out = { region, planes, facts: stage.facts?.(prepared) };
      const given = loaded && hand(loaded, held.blocks);
      const own = { stage: stage.name, out, inputs, prepared, loaded: given };
      return { refs: out, blocks: kept, tasks: [...held.begun.flatMap(({ tasks }) => tasks), own], end };
    } catch (error) {
      kept.forEach(arena.release);
      end();
      if (error instanceof ArenaFullError) error.part ??= stage.part;
      throw error;
    }
  }

  async function make(want: Want, signal: AbortSignal): Promise<Result> {
    const { refs, blocks, tasks, end } = await begin(want, signal);
    try {
      await onWorkers(want.stage, want.at.region, signal, tasks);
      return { refs, blocks };
    } catch (error) {
      blocks.forEach(arena.release);
      throw error;
    } finally {
      end();
    }
  }

  /** A result as an earlier visit kept it. */
  function laid({ planes, facts }: KeptResult, { region }: Want['at']): Result {
    const blocks: Block[] = [];
    const sizes = Object.fromEntries(Object.entries(planes).map(([name, { length }]) => [name, length]));
    try {
      const refs = { region, planes: layOut(sizes, blocks), facts };
      for (const [name, { at, length }] of Object.entries(refs.planes)) {
        new Float32Array(arena.memory.buffer, at, length).set(planes[name]);
      }
      return { refs, blocks };
    } catch (error) {
      blocks.forEach(arena.release);
      throw error;
    }
  }

  /** A lasting result: as it was kept, or made and kept. */
  async function lastingOf(want: Want, signal: AbortSignal): Promise<Result> {
    const kept = await assets.results?.find(want.key);
    if (kept) return laid(kept, want.at);
    const made = await make(want, signal);
    const planes = Object.entries(made.refs.planes).map(
      ([name, { at, length }]) => [name, new Float32Array(arena.memory.buffer, at, length).slice()] as const,
    );
    assets.results?.keep(want.key, { planes: Object.fromEntries(planes), facts: made.refs.facts });
    return made;
  }

  function resultOf(want: Want, signal: AbortSignal): Promise<Result> {
    const { passing, lasting } = want.stage;
    if (passing) return make(want, signal);
    return store.node(want.key, () => (lasting ? lastingOf : make)(want, signal), want.slot);
  }

  function isReady(want: Want): boolean {
    const { pace, passing } = want.stage;
    if (!passing && store.has(want.key)) return true;
    return pace === 'quick' && wantsIn(want.inputs).every(isReady);
  }

  return {
    async see<V extends View, T>(want: Want<V>, signal: AbortSignal, use: (view: V) => T) {
      const result = await resultOf(want, signal);
      try {
        return use(viewOf(arena.memory, result.refs) as V);
      } finally {
        if (want.stage.passing) release(result);
      }
    },
    isReady,
    underway: () => [...working].at(-1)?.stage.part,
  };
}
