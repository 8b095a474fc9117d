import { regionKey, type Region } from '@/core/plane/region';
import type { Kernels } from '../kernels/kernels';
import type { RenderAssets } from '../render-assets';
import { digest } from './digest';
import type { Spot } from './spot';
import type { Band, View } from './view';

/** What of a picture a stage belongs to, as messages name it. */
export type PicturePart =
  | 'the photo'
  | 'the mattes'
  | 'the ground plan'
  | 'the mirrors'
  | 'the placed pictures'
  | 'the sky'
  | 'the light of the fixtures'
  | 'evening out the day'
  | 'the touches'
  | 'the drifts'
  | 'the night'
  | 'the lens';

/** What a stage's file comes to: its data go to the workers. */
export interface Loaded {
  data: Uint8Array | Uint16Array | Float32Array;
}

/** What is there once a stage's inputs are, before its planes. */
interface Ready<Settings, In, Load> {
  settings: Settings;
  inputs: ViewsOf<In>;
  region: Region;
  loaded: Load;
}

/** What a stage's work gets beside its planes and inputs. */
export interface Work<Prepared, Kit> {
  /** What was prepared, or the settings where nothing was. */
  prepared: Prepared;
  /** The data that were loaded. */
  loaded: Loaded['data'] | undefined;
  kit: Kit;
  /** The hot loops as SIMD; without them functions of the core do the same. */
  kernels?: Kernels;
}

/**
 * A stage of the picture: what it depends on, and what it does. All else follows from that: its key, whether it is there, its bands,
 * its way to the workers and back, and how long it is kept.
 */
export interface StageSpec<
  Params,
  Settings,
  In extends Wants,
  Load,
  Prepared,
  Facts,
  Name extends string,
  Kit,
> {
  /** Names the stage, once in the house. */
  name: string;
  part: PicturePart;
  /** Where it is computed, if not where it is asked for: the small copy, say. */
  region?: (at: Spot, params: Params) => Region;
  /** Exactly what of the document it depends on, beside its inputs. Plain data. */
  settings: (at: Spot, params: Params) => Settings;
  /** Results of other stages. `at` has this stage's own region. */
  inputs: (at: Spot, params: Params) => In;
  /** A file that it needs. */
  load?: (assets: RenderAssets, settings: Settings, region: Region, signal: AbortSignal) => Promise<Load>;
  /**
   * Done once before the work, on the engine's own thread: plain data, found in a moment. It goes to the workers instead of the settings, so
   * it holds no more than the work needs.
   */
  prepare?: (ready: Ready<Settings, In, Load>) => Prepared;
  /** What of that other stages see beside the planes. */
  facts?: (prepared: Prepared) => Facts;
  /** Names and lengths of its planes, floats. `pixels` is its region's number of pixels. */
  planes: (pixels: number, prepared: Prepared) => Record<Name, number>;
  /** Quick work follows a fader and is never given up; heavy work is cut finely, so that an outdated frame soon is. */
  pace: 'quick' | 'heavy';
  /**
   * Each of its pixels needs that pixel alone of inputs that pass: they are done band by band together, while a band is in the cache. It has
   * no `prepare`.
   */
  pointwise?: boolean;
  /** Done in one piece rather than in bands of rows. */
  whole?: boolean;
  /** Of results with the same text only the newest is kept: such as are made anew at every move of a fader, or of a lamp. */
  newest?: (params: Params, at: Spot) => string | undefined;
  /** Dear, small, and the same for many states of a document: kept from one visit to the next. Its facts are JSON. */
  lasting?: boolean;
  /** Never kept: let go as soon as it was used. */
  passing?: boolean;
  /** Tables and scratch, made once a worker. */
  kit?: () => Kit;
  /** Fills the rows of a band. Views are of whole regions; `band.of` cuts them. */
  run: (out: View<Name, Facts>, inputs: ViewsOf<In>, work: Work<Prepared, Kit>, band: Band) => void;
}

/** A stage as the engine sees it: what its parts give each other is known to the stage alone. */
export type AnyStage = StageSpec<
  unknown,
  unknown,
  Wants,
  Loaded | undefined,
  unknown,
  unknown,
  string,
  unknown
>;

/** What stages ask of other stages: one result, none, or several in a list or by name. */
export type Wants = Want | undefined | readonly Wants[] | { readonly [name: string]: Wants };

/** The views that wants come to. */
export type ViewsOf<W> =
  W extends Want<infer V>
    ? V
    : W extends readonly (infer One)[]
      ? ViewsOf<One>[]
      : W extends object
        ? { [K in keyof W]: ViewsOf<W[K]> }
        : W;

/** A result of a stage that is asked for: whether it is there already is the engine's to know. */
export class Want<out V extends View = View> {
  /** Only for types: what it comes to. */
  declare readonly view: V;
  private asked?: { settings: unknown; inputs: Wants; key: string };

  constructor(
    readonly stage: AnyStage,
    readonly at: Spot,
    readonly params: unknown,
  ) {}

  /** Exactly what of the document it depends on. */
  get settings(): unknown {
    return this.told.settings;
  }

  get inputs(): Wants {
    return this.told.inputs;
  }

  /** Names exactly what its planes depend on. However deep results stand on one another, a key stays short. */
  get key(): string {
    return this.told.key;
  }

  /** Of results with one slot only the newest is kept. */
  get slot(): string | undefined {
    const { name, newest, region } = this.stage;
    const of = newest?.(this.params, this.at);
    return of === undefined ? undefined : `${name} ${of} ${region ? '' : regionKey(this.at.region)}`;
  }

  private get told() {
    if (this.asked) return this.asked;
    const { stage, at, params } = this;
    const [settings, inputs] = [stage.settings(at, params), stage.inputs(at, params)];
    const on = [at.tell(settings), regionKey(at.region), textOf(inputs)];
    return (this.asked = { settings, inputs, key: `${stage.name} ${digest(on.join(' '))}` });
  }
}

/** A tree of wants by their keys. */
function textOf(wants: Wants): string {
  if (wants === undefined) return '-';
  if (wants instanceof Want) return wants.key;
  const parts = Object.entries(wants).map(([name, one]) => `${name}: ${textOf(one)}`);
  return `(${parts.join(', ')})`;
}
