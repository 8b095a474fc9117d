/** What a thing that stands may be seen to be. */
export type ThingKind = 'person' | 'car' | 'bicycle' | 'animal' | 'bench' | 'plant' | 'thing';

/** What is known of a kind of thing before one is seen. */
interface KindOfThing {
  /** What its matte and its standee are called. */
  title: string;
  /** How high such things are, metres. */
  height: { least: number; most: number };
  /** How high they are as a rule, metres, where that varies little: it tells the eye height. */
  usual?: number;
  /** Whether it is more like a box than like a barrel. */
  boxy?: true;
}

export const THING_KINDS: Record<ThingKind, KindOfThing> = {
  person: { title: 'Person', height: { least: 0.8, most: 2.4 }, usual: 1.72 },
  car: { title: 'Car', height: { least: 0.9, most: 4.2 }, usual: 1.5, boxy: true },
  bicycle: { title: 'Bicycle', height: { least: 0.6, most: 2.2 } },
  animal: { title: 'Animal', height: { least: 0.2, most: 2.2 } },
  bench: { title: 'Bench', height: { least: 0.3, most: 1.6 } },
  plant: { title: 'Plant', height: { least: 0.25, most: 4 } },
  thing: { title: 'Thing', height: { least: 0.25, most: 2.6 } },
};
