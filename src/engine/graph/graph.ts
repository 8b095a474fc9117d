import { allOf } from '../all-of';
import { ArenaFullError, type Arena, type Block } from '../memory/arena';
import type { Node, NodeStore } from '../memory/node-store';
import type { Pool } from '../pool/pool';
import type { RenderAssets } from '../render-assets';
import { copyOf, layKept, layOut, shareLoaded } from './lay-out';
import { onWorkers } from './on-workers';
import type { Loaded, Want } from './stage-spec';
import type { InputRefs, MadeRefs, Piece } from './task';
import { viewOf, viewsOf, type View } from './view';
import { mapWants, wantsIn } from './wants';

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
  see<V extends View, T>(want: Want<V>, signal: AbortSignal, use: (view: V) => T): Promise<T>;
  /** Whether a result needs nothing but what is quick. */
  isReady(want: Want): boolean;
  /** The part of the picture that is being worked on. */
  underway(): string | undefined;
}

interface Means {
  arena: Arena;
  pool: Pool;
  store: NodeStore;
  assets: RenderAssets;
}

/** A graph over a memory and its workers. */
export const createGraph = (means: Means): Graph => new ResultGraph(means);

class ResultGraph implements Graph {
  private readonly working = new Set<Want>();

  constructor(private readonly means: Means) {}

  async see<V extends View, T>(want: Want<V>, signal: AbortSignal, use: (view: V) => T): Promise<T> {
    const result = await this.resultOf(want, signal);
    try {
      return use(viewOf(this.means.arena.memory, result.refs) as V);
    } finally {
      if (want.stage.passing) this.release(result.blocks);
    }
  }

  isReady(want: Want): boolean {
    const { pace, passing } = want.stage;
    if (!passing && this.means.store.has(want.key)) return true;
    return pace === 'quick' && wantsIn(want.inputs).every((input) => this.isReady(input));
  }

  underway(): string | undefined {
    return [...this.working].at(-1)?.stage.part;
  }

  private release(blocks: readonly Block[]): void {
    blocks.forEach(this.means.arena.release);
  }

  /** A result as it was kept under its key, or made. */
  private resultOf(want: Want, signal: AbortSignal): Promise<Result> {
    const { passing, lasting } = want.stage;
    if (passing) return this.make(want, signal);
    const make = () => (lasting ? this.lastingOf(want, signal) : this.make(want, signal));
    return this.means.store.node(want.key, make, want.slot);
  }

  /** A lasting result: as an earlier visit kept it, or made and kept. */
  private async lastingOf(want: Want, signal: AbortSignal): Promise<Result> {
    const { results } = this.means.assets;
    const kept = await results?.find(want.key);
    if (kept) {
      const { region } = want.at;
      return this.filling((blocks) => ({
        region,
        planes: layKept(this.means, kept, blocks),
        facts: kept.facts,
      }));
    }
    try {
      const made = await this.make(want, signal);
      results?.keep(want.key, copyOf(this.means, made.refs));
      return made;
    } catch (error) {
      results?.forgo(want.key);
      throw error;
    }
  }

  private async make(want: Want, signal: AbortSignal): Promise<Result> {
    const { refs, blocks, tasks, end } = await this.begin(want, signal);
    try {
      await onWorkers(this.means, want.stage, want.at.region, tasks, signal);
      return { refs, blocks };
    } catch (error) {
      this.release(blocks);
      throw error;
    } finally {
      end();
    }
  }

  /** Readies a stage's own work: its inputs, planes and tasks. What it takes beside its planes is given back by `end`. */
  private async begin(want: Want, signal: AbortSignal): Promise<Begun> {
    const { stage, at, settings } = want;
    const held: Held = { blocks: [], begun: [] };
    const end = () => {
      this.working.delete(want);
      this.release(held.blocks);
      held.begun.forEach((one) => {
        one.end();
        this.release(one.blocks);
      });
    };
    try {
      signal.throwIfAborted();
      const inputs = await this.inputsOf(want, signal, held);
      this.working.add(want);
      const loaded = await stage.load?.(this.means.assets, settings, at.region, signal);
      signal.throwIfAborted();
      const own = this.filling((blocks) => this.taskOf(want, inputs, loaded, blocks, held));
      const tasks = [...held.begun.flatMap((one) => one.tasks), own.refs];
      return { refs: own.refs.out, blocks: own.blocks, tasks, end };
    } catch (error) {
      end();
      if (error instanceof ArenaFullError) error.part ??= stage.part;
      throw error;
    }
  }

  /** A stage's own task: its settings prepared, and its planes laid out. */
  private taskOf(
    { stage, at: { region }, settings }: Want,
    inputs: InputRefs,
    loaded: Loaded | undefined,
    blocks: Block[],
    held: Held,
  ): Piece {
    const views = () => viewsOf(this.means.arena.memory, inputs);
    const prepared: unknown = stage.prepare
      ? stage.prepare({ settings, inputs: views(), region, loaded })
      : settings;
    const planes = layOut(this.means, stage.planes(region.width * region.height, prepared), blocks);
    const out = { region, planes, facts: stage.facts?.(prepared) };
    const given = loaded && shareLoaded(this.means, loaded, held.blocks);
    return { stage: stage.name, out, inputs, prepared, loaded: given };
  }

  /** Runs what takes blocks; they are given back when it fails. */
  private filling<T>(take: (blocks: Block[]) => T): { refs: T; blocks: Block[] } {
    const blocks: Block[] = [];
    try {
      return { refs: take(blocks), blocks };
    } catch (error) {
      this.release(blocks);
      throw error;
    }
  }

  /** Results of what a stage wants; where it works pixel by pixel, those that pass are only begun. */
  private async inputsOf({ stage, inputs }: Want, signal: AbortSignal, held: Held): Promise<InputRefs> {
    const refsOf = async (input: Want): Promise<MadeRefs> => {
      if (stage.pointwise && input.stage.passing) {
        const begun = await this.begin(input, signal);
        held.begun.push(begun);
        return begun.refs;
      }
      const result = await this.resultOf(input, signal);
      if (input.stage.passing) held.blocks.push(...result.blocks);
      return result.refs;
    };
    const made = await allOf(wantsIn(inputs).map(async (input) => [input, await refsOf(input)] as const));
    const refs = new Map(made);
    return mapWants(inputs, (input) => refs.get(input)) as InputRefs;
  }
}
