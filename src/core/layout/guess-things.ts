import { project, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint, horizonAt } from '../geometry/ground';
import { placeOnStalk } from '../geometry/place-on-stalk';

/** The box of something that stands out from the ground, fractions of the plate; `open` where it goes on over its top. */
export interface ThingBox {
  left: number;
  right: number;
  top: number;
  foot: number;
  open: boolean;
}

/** A thing that was guessed: a loop around it, u, v, one after the other, and where it stands. */
export interface GuessedThing {
  loop: number[];
  foot: PlatePoint;
}

/** How high things are that may stand up, and how high one is taken to be that goes on over the horizon: a person, metres. */
const HEIGHT = { least: 0.35, most: 4, person: 1.85 } as const;

/** A foot lies this far under the horizon at least, fraction of the height. */
const UNDER = 0.05;

/** Margin of a loop, shares of the box; corners of a loop. */
const MARGIN = 0.08;
const CORNERS = 20;

/** What is flat on the ground is broader than high; what stands is not. */
const FLAT = 1;

/** Most things that are guessed. */
const MOST = 8;

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

/** The boxes that stand by the lie of the land: higher than broad, and as high as people and things are. The largest first. */
export function guessThings(
  boxes: readonly ThingBox[],
  camera: Camera,
  horizon: { left: number; right: number },
): GuessedThing[] {
  return boxes
    .flatMap(({ left, right, top, foot: low, open }) => {
      const foot = { u: (left + right) / 2, v: low };
      if (low < horizonAt(horizon, foot.u) + UNDER) return [];
      const [x, y] = groundPoint(camera, foot);
      const head = open ? project(camera, [x, y, HEIGHT.person])?.v : undefined;
      const upper = Math.min(top, head ?? top);
      const tall = placeOnStalk(camera, { u: foot.u, v: upper }, foot)[2];
      const across = (right - left) * camera.aspect;
      if (tall < HEIGHT.least || tall > HEIGHT.most || low - upper < FLAT * across) return [];
      const area = (right - left) * (low - upper);
      return [{ loop: loopAround(left, right, upper, low), foot, area }];
    })
    .sort((p, q) => q.area - p.area)
    .slice(0, MOST)
    .map(({ loop, foot }) => ({ loop, foot }));
}
