import type { Region } from '@/core/plane/region';
import type { Kernels } from '../kernels/kernels';
import type { RenderAssets } from '../render-assets';
import { spotKey, type Spot } from './spot';
import type { LoadedRef } from './task';
import type { Band, View } from './view';
import { Want, type ViewsOf, type Wants } from './want';

/** What of a picture a stage belongs to, as messages name it. */
export type PicturePart =
  | 'the photo'
  | 'the mattes'
  | 'the ground plan'
  | 'the light of the fixtures'
  | 'evening out the day'
  | 'the night';

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
export interface Work<Settings, Prepared, Kit> {
  settings: Settings;
  prepared: Prepared;
  /** The data that were loaded. */
  loaded: Loaded['data'] | undefined;
  kit: Kit;
  /** The hot loops as SIMD; without them their twins of the core are used. */
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
  /** Done once before the work, on the engine's own thread: plain data, found in a moment. */
  prepare?: (ready: Ready<Settings, In, Load>) => Prepared;
  /** What of that other stages see beside the planes. */
  facts?: (prepared: Prepared) => Facts;
  /** Names and lengths of its planes, floats. `pixels` is its region's number of pixels. */
  planes: (pixels: number, prepared: Prepared) => Record<Name, number>;
  /** Quick work follows a fader and is never given up; heavy work is cut finely, so that an outdated frame soon is. */
  pace: 'quick' | 'heavy';
  /** Done in one piece rather than in bands of rows. */
  whole?: boolean;
  /** Of results with the same text only the newest is kept: such as are made anew at every move of a fader. */
  newest?: (params: Params) => string | undefined;
  /** Never kept: let go as soon as it was used. */
  passing?: boolean;
  /** Tables and scratch, made once a worker. */
  kit?: () => Kit;
  /** Fills the rows of a band. Views are of whole regions; `band.of` cuts them. */
  run: (out: View<Name, Facts>, inputs: ViewsOf<In>, work: Work<Settings, Prepared, Kit>, band: Band) => void;
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

/** A stage, which is asked for its result at a spot. */
export interface Stage<Params, Facts, Name extends string> {
  (at: Spot, ...params: unknown extends Params ? [] : [params: Params]): Want<View<Name, Facts>>;
  spec: AnyStage;
}

/** Describes a stage. The same result asked for twice of one document is one want. */
export function stage<
  Params,
  Settings,
  In extends Wants,
  Load extends Loaded | undefined,
  Prepared,
  Facts,
  Name extends string,
  Kit,
>(spec: StageSpec<Params, Settings, In, Load, Prepared, Facts, Name, Kit>): Stage<Params, Facts, Name> {
  const plain = spec as unknown as AnyStage;
  const ask = (asked: Spot, ...[params]: unknown[]) => {
    const at = plain.region ? { ...asked, region: plain.region(asked, params) } : asked;
    const name = spotKey(plain, at, params);
    const want = at.wants.get(name) ?? new Want(plain, at, params);
    at.wants.set(name, want);
    return want as Want<View<Name, Facts>>;
  };
  return Object.assign(ask, { spec: plain });
}

/** The type of loaded data, for their way to the workers. */
export const arrayType = (data: Loaded['data']) => data.constructor.name as LoadedRef['type'];
