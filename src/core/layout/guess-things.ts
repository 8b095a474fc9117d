import { project, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint, horizonAt } from '../geometry/ground';
import { lineAt } from '../geometry/line-at';
import { placeOnStalk } from '../geometry/place-on-stalk';
import type { PlateLine } from '../geometry/vanishing-point';
import { THING_KINDS, type ThingKind } from './thing-kinds';

/**
 * The box of something that stands out from the ground, fractions of the plate; `open` where it goes on over its top. What
 * it is, where that was seen: else it is told by its tones alone.
 */
export interface ThingBox {
  left: number;
  right: number;
  top: number;
  foot: number;
  open: boolean;
  is?: ThingKind;
}

/** Where what a box shows stands: the middle of its lower edge. */
export const footOfBox = ({ left, right, foot }: Pick<ThingBox, 'left' | 'right' | 'foot'>): PlatePoint => ({
  u: (left + right) / 2,
  v: foot,
});

/** A thing that was guessed: its box, a loop around it, u, v, one after the other, where it stands, and what it is. */
export interface GuessedThing {
  box: Pick<ThingBox, 'left' | 'right' | 'top' | 'foot'>;
  loop: number[];
  foot: PlatePoint;
  is: ThingKind;
}

/**
 * How high things are that may stand up of which nothing but tones is known, and how high one is taken to be that goes on over the
 * horizon: a person, metres.
 */
const HEIGHT = { least: 0.35, most: 4, person: 1.85 } as const;

/** A foot lies this far under the horizon at least, fraction of the height: of what is told by its tones, and of what was seen. */
const UNDER = { toned: 0.05, seen: 0.015 } as const;

/** Margin of a loop, shares of the box; corners of a loop. */
const MARGIN = 0.08;
const CORNERS = 20;

/** What is flat on the ground is broader than high; what stands is not. */
const FLAT = 1;

/** A foot so near to the lower edge is cut by it, fraction of the height. */
const EDGE = 0.01;

/** A foot lies at least so far before that of a wall, fraction of the height. */
const CLEAR = 0.002;

/** So much of a thing may be hidden before a wall, as a share of what is seen of it. */
const HIDDEN = 0.25;

/** Most things that are guessed. */
const MOST = 16;

/** A loop around a box: a superellipse, which keeps near to its corners. */
function loopAround(left: number, right: number, top: number, bottom: number): number[] {
  const [u, v] = [(left + right) / 2, (top + bottom) / 2];
  const [halfU, halfV] = [(right - left) * (0.5 + MARGIN), (bottom - top) * (0.5 + MARGIN)];
  const bend = (value: number) => Math.sign(value) * Math.sqrt(Math.abs(value));
  return Array.from({ length: CORNERS }, (_, k) => (2 * Math.PI * k) / CORNERS).flatMap((angle) => [
    u + halfU * bend(Math.cos(angle)),
    v + halfV * bend(Math.sin(angle)),
  ]);
}

/** A box that stands, as high as it is by the lie of the land, metres. */
interface StandingBox extends ThingBox {
  tall: number;
}

/** A box as it stands, its top where such a thing's is; undefined where it stands at the horizon. */
function standing(
  box: ThingBox,
  camera: Camera,
  horizon: { left: number; right: number },
): StandingBox | undefined {
  const foot = footOfBox(box);
  if (box.foot < horizonAt(horizon, foot.u) + (box.is ? UNDER.seen : UNDER.toned)) return undefined;
  const [x, y] = groundPoint(camera, foot);
  const head = box.open ? project(camera, [x, y, HEIGHT.person])?.v : undefined;
  const top = Math.min(box.top, head ?? box.top);
  return { ...box, top, tall: placeOnStalk(camera, { u: foot.u, v: top }, foot)[2] };
}

/**
 * Whether a standing box is as high as such things are; what is told by its tones alone is higher than broad, too. One that the lower edge
 * cuts is higher than it seems.
 */
function isSuch({ is, left, right, top, foot, tall }: StandingBox, aspect: number): boolean {
  const { least, most } = is ? THING_KINDS[is].height : HEIGHT;
  const isCut = is !== undefined && foot > 1 - EDGE;
  return (
    (tall >= least || isCut) &&
    tall <= most &&
    (is !== undefined || foot - top >= FLAT * (right - left) * aspect)
  );
}

/**
 * A box as it stands before walls, told by the lines of their feet: what of its foot is hidden lies before them. Undefined for what is
 * seen on a wall, a poster or somebody at a window.
 */
function beforeWalls(box: ThingBox, feet: readonly PlateLine[]): ThingBox | undefined {
  const { u } = footOfBox(box);
  const behind = feet.filter(([from, to]) => u >= from.u && u <= to.u).map((line) => lineAt(line, u) + CLEAR);
  const foot = Math.max(box.foot, ...behind);
  return foot - box.foot > HIDDEN * (box.foot - box.top) ? undefined : { ...box, foot };
}

/** Whether the middle of a box lies in another. */
const liesIn = (box: ThingBox, other: ThingBox): boolean => {
  const [u, v] = [(box.left + box.right) / 2, (box.top + box.foot) / 2];
  return u > other.left && u < other.right && v > other.top && v < other.foot;
};

/**
 * The boxes that stand by the lie of the land, as high as people and things are: what was seen first, then what its tones tell, of
 * each the largest first. What lies in one that was seen is a part of it.
 *
 * @param feet the lines of walls' feet, each from the left to the right: things stand before them
 */
export function guessThings(
  boxes: readonly ThingBox[],
  camera: Camera,
  horizon: { left: number; right: number },
  feet: readonly PlateLine[] = [],
): GuessedThing[] {
  const areaOf = ({ left, right, top, foot }: ThingBox) => (right - left) * (foot - top);
  const stand = boxes
    .flatMap((box) => beforeWalls(box, feet) ?? [])
    .flatMap((box) => standing(box, camera, horizon) ?? [])
    .filter((box) => isSuch(box, camera.aspect));
  const seen = stand.filter(({ is }) => is);
  const toned = stand.filter((box) => !box.is && !seen.some((other) => liesIn(box, other)));
  return [seen, toned]
    .flatMap((some) => some.sort((p, q) => areaOf(q) - areaOf(p)))
    .slice(0, MOST)
    .map(({ left, right, top, foot, is }) => ({
      box: { left, right, top, foot },
      loop: loopAround(left, right, top, foot),
      foot: footOfBox({ left, right, foot }),
      is: is ?? 'thing',
    }));
}
