import type { ThingKind } from '@/core/layout/thing-kinds';
import type { Part } from './squares';

/** A thing that the network sees: its box, fractions of what was looked at, and how sure it is, 0 to 1. */
export interface SeenThing extends Part {
  is: ThingKind;
  sure: number;
}

/** Boxes of which so much lies in one another, as a share of both together, are of one thing; or of the smaller, of one kind. */
const ONE = { together: 0.45, within: 0.7 } as const;

/** A box this near to an edge within the picture is cut by it, share of the part. */
const CUT = 0.012;

const areaOf = ({ left, top, right, bottom }: Part) => Math.max(0, right - left) * Math.max(0, bottom - top);

const common = (a: Part, b: Part): number =>
  areaOf({
    left: Math.max(a.left, b.left),
    top: Math.max(a.top, b.top),
    right: Math.min(a.right, b.right),
    bottom: Math.min(a.bottom, b.bottom),
  });

function isOneThing(a: SeenThing, b: SeenThing): boolean {
  const both = common(a, b);
  const smaller = Math.min(areaOf(a), areaOf(b));
  return (
    both > ONE.together * (areaOf(a) + areaOf(b) - both) || (a.is === b.is && both > ONE.within * smaller)
  );
}

/** Whether a box is cut by an edge of a part that is none of the picture. */
const isCut = (thing: SeenThing, part: Part): boolean =>
  (part.left > 0 && thing.left < CUT) ||
  (part.right < 1 && thing.right > 1 - CUT) ||
  (part.top > 0 && thing.top < CUT) ||
  (part.bottom < 1 && thing.bottom > 1 - CUT);

/** What was seen in a part of a picture, as fractions of the whole; without what the part's own edges cut. */
export function ofWhole(things: readonly SeenThing[], part: Part): SeenThing[] {
  const [across, down] = [part.right - part.left, part.bottom - part.top];
  return things
    .filter((thing) => !isCut(thing, part))
    .map((thing) => ({
      ...thing,
      left: part.left + across * thing.left,
      right: part.left + across * thing.right,
      top: part.top + down * thing.top,
      bottom: part.top + down * thing.bottom,
    }));
}

/** Of what was seen several times, the surest alone; the surest first. */
export function eachOnce(things: readonly SeenThing[]): SeenThing[] {
  const kept: SeenThing[] = [];
  for (const thing of [...things].sort((a, b) => b.sure - a.sure)) {
    if (!kept.some((other) => isOneThing(other, thing))) kept.push(thing);
  }
  return kept;
}
