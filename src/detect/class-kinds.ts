import type { ThingKind } from '@/core/layout/thing-kinds';

/** What the network tells apart that may stand on the ground, by the numbers of its classes. */
const CLASSES: Record<ThingKind, readonly number[]> = {
  person: [0],
  car: [2, 5, 7],
  bicycle: [1, 3],
  animal: [15, 16, 17, 18, 19, 20, 21, 22, 23],
  bench: [13],
  plant: [58, 75],
  // Hydrants, meters, luggage, seats, tables and white goods: what a bin, a crate or a bollard is taken for.
  thing: [10, 12, 24, 26, 28, 56, 57, 60, 61, 68, 69, 72],
};

/** The kind of each class; none of what flies, floats, hangs or is eaten. */
const KIND_OF = new Map(
  (Object.keys(CLASSES) as ThingKind[]).flatMap((kind) =>
    CLASSES[kind].map((number) => [number, kind] as const),
  ),
);

/** What is seldom in a photo of a place is believed to be so from here on, and else is a thing. */
const SELDOM: ReadonlySet<ThingKind> = new Set(['animal', 'bicycle']);
const SURE = 0.4;

/** The kind of what is seen to be of a class. */
export function kindOfClass(number: number, sure: number): ThingKind | undefined {
  const kind = KIND_OF.get(number);
  return kind && SELDOM.has(kind) && sure < SURE ? 'thing' : kind;
}
