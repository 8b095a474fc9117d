import { regionKey } from '@/core/plane/region';
import { digest } from './digest';
import type { AnyStage } from './stage';
import type { Spot } from './spot';
import type { View } from './view';

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
    const of = newest?.(this.params);
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

/** All single wants of a tree, in its order. */
export function wantsIn(wants: Wants): Want[] {
  if (wants === undefined) return [];
  if (wants instanceof Want) return [wants];
  return (Array.isArray(wants) ? wants : Object.values(wants)).flatMap((one: Wants) => wantsIn(one));
}

/** A tree of wants with each replaced. */
export function mapWants<T>(wants: Wants, replace: (want: Want) => T): unknown {
  if (wants === undefined) return undefined;
  if (wants instanceof Want) return replace(wants);
  if (Array.isArray(wants)) return wants.map((one: Wants) => mapWants(one, replace));
  return Object.fromEntries(Object.entries(wants).map(([name, one]) => [name, mapWants(one, replace)]));
}
