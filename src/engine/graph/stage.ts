import { spotKey, type Spot } from './spot';
import { Want, type AnyStage, type Loaded, type StageSpec, type Wants } from './stage-spec';
import type { LoadedRef } from './task';
import type { View } from './view';

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
  Facts,
  Name extends string,
  Kit,
  Prepared = Settings,
>(spec: StageSpec<Params, Settings, In, Load, Prepared, Facts, Name, Kit>): Stage<Params, Facts, Name> {
  const plain = spec as unknown as AnyStage;
  const ask = (asked: Spot, ...[params]: unknown[]) => {
    const at = plain.region ? { ...asked, region: plain.region(asked, params) } : asked;
    const name = spotKey(plain.name, at, params);
    const known = at.wants.get(name) as Want | undefined;
    const want = known ?? new Want(plain, at, params);
    at.wants.set(name, want);
    return want as Want<View<Name, Facts>>;
  };
  return Object.assign(ask, { spec: plain });
}

/** The type of loaded data, for their way to the workers. */
export const arrayType = (data: Loaded['data']) => data.constructor.name as LoadedRef['type'];
