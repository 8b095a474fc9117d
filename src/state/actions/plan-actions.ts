import { groundPoint, horizonAt } from '@/core/geometry/ground';
import { project, type PlatePoint } from '@/core/geometry/camera';
import { lineAt } from '@/core/geometry/line-at';
import type { CoveragePicture } from '@/core/matte/coverage-picture';
import type { GuessedWall } from './plan-guess';
import type { GuessedDeck } from '@/core/layout/guess-decks';
import type { RippledFinish } from '@/core/plan/surfaces';
import { PLAIN_FINISH, PLAIN_SURFACE } from '@/core/scene/new-scene';
import type { GroundPlan, Scene } from '@/core/scene/schema';
import { cameraOf } from '@/core/picture/camera-of';
import { placeOnStalk } from '@/core/geometry/place-on-stalk';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { freeName } from './free-name';

type Wall = GroundPlan['walls'][number];
type Standee = GroundPlan['standees'][number];
type Deck = GroundPlan['decks'][number];

/** Height of a wall whose top is not seen, metres: a high storey. What shows sky above it ends there by itself. */
const WALL_HEIGHT = 4;

/** Height of a deck that is drawn, metres: a kerb. */
const DECK_HEIGHT = 0.15;

/** Feet are held this far under the horizon, fraction of the height: at it the ground is endlessly far. */
const UNDER_HORIZON = 0.004;

/** A place of the picture as a foot: on the ground, under the horizon. */
export function footAt({ plan }: Pick<Scene, 'plan'>, { u, v }: PlatePoint): PlatePoint {
  return { u, v: Math.max(v, horizonAt(plan.horizon, u) + UNDER_HORIZON) };
}

/** A foot that is drawn to this near to a side or the lower edge of the picture goes on beyond it, fraction of the picture. */
const EDGE = 0.012;

/** How far beyond the edge, fractions of the width. */
const BEYOND = 0.5;

/** How far a wall that is let go on reaches beyond the picture below it, fractions of the height. */
const BELOW = 1;

/**
 * A place farther along the line from one place through another, as far beyond the picture as walls go, or as the ground does: up to the
 * horizon. Undefined where the line has no way to go.
 */
function farAlong(
  { plan }: Pick<Scene, 'plan'>,
  from: PlatePoint,
  through: PlatePoint,
): PlatePoint | undefined {
  const [du, dv] = [through.u - from.u, through.v - from.v];
  /** How far under the horizon a place lies that is still ground; below 0 over it. */
  const under = ({ u, v }: PlatePoint) => v - horizonAt(plan.horizon, u) - UNDER_HORIZON;
  const fall = under({ u: through.u + du, v: through.v + dv }) - under(through);
  const reach = Math.min(
    du === 0 ? Infinity : ((du > 0 ? 1 + BEYOND : -BEYOND) - through.u) / du,
    dv > 0 ? (1 + BELOW - through.v) / dv : Infinity,
    fall < 0 ? under(through) / -fall : Infinity,
  );
  if (!(reach > 1e-9) || reach === Infinity) return undefined;
  return { u: through.u + reach * du, v: through.v + reach * dv };
}

/** The end of a wall that is drawn from one place to another: at the picture's edge it goes on outside. */
export function wallEnd(scene: Pick<Scene, 'plan'>, from: PlatePoint, to: PlatePoint): PlatePoint {
  const isAtEdge =
    (to.u < EDGE && to.u < from.u - EDGE) ||
    (to.u > 1 - EDGE && to.u > from.u + EDGE) ||
    (to.v > 1 - EDGE && to.v > from.v + EDGE);
  return footAt(scene, (isAtEdge && farAlong(scene, from, to)) || to);
}

/** A wall's foot with one end taken along its line as far as the picture goes, or as the ground does. */
export function footGoneOn(
  scene: Pick<Scene, 'plan'>,
  foot: PlatePoint[],
  side: 'left' | 'right',
): PlatePoint[] {
  const isLast = foot.at(-1)!.u > foot[0].u === (side === 'right');
  const ordered = isLast ? foot : [...foot].reverse();
  const end = farAlong(scene, ordered.at(-2)!, ordered.at(-1)!);
  if (!end) return foot;
  const gone = [...ordered.slice(0, -1), end];
  return isLast ? gone : gone.reverse();
}

/** The middle of what is seen of a wall's first piece: its foot, and its top over it; undefined where that is behind the eye. */
export function middleOfWall(scene: Scene, { foot: [a, b], height }: Wall): PlateLine | undefined {
  const [left, right] = [a, b].map(({ u }) => Math.min(1, Math.max(0, u))).sort((p, q) => p - q);
  const u = (left + right) / 2;
  const foot = { u, v: Math.abs(a.u - b.u) < 1e-6 ? Math.max(a.v, b.v) : lineAt([a, b], u) };
  const camera = cameraOf(scene);
  const [x, y] = groundPoint(camera, foot);
  const top = project(camera, [x, y, height]);
  return top && [foot, { u: top.u, v: top.v }];
}

export const newWall = (scene: Scene, from: PlatePoint, to: PlatePoint, height = WALL_HEIGHT): Wall => ({
  id: crypto.randomUUID(),
  name: freeName('Wall', scene.plan.walls),
  foot: [wallEnd(scene, to, from), wallEnd(scene, from, to)],
  height,
  ...PLAIN_SURFACE,
});

/** A wall that was guessed. */
export const guessedWall = (
  scene: Scene,
  { foot: [from, to], rise }: Pick<GuessedWall, 'foot' | 'rise'>,
): Wall =>
  newWall(
    scene,
    from,
    to,
    rise === undefined ? undefined : clampTo(rise * scene.plan.eyeHeight, RANGES.wallHeight),
  );

/** How high an upright thing is by the ground plan, metres, from its foot to its top as they are seen. */
export function heightOf(scene: Scene, [foot, top]: PlateLine): number {
  const [low, high] = foot.v > top.v ? [foot, top] : [top, foot];
  return placeOnStalk(cameraOf(scene), high, footAt(scene, low))[2];
}

/** The eye height with which a thing that measures some metres is as high as it truly is: all of the plan scales with it. */
export function eyeHeightFor({ plan }: Scene, measures: number, metres: number): number {
  const { min, max } = RANGES.eyeHeight;
  return Math.min(max, Math.max(min, (plan.eyeHeight * metres) / Math.max(1e-6, measures)));
}

/** The finish of what lies on the ground: the ground's own, or dry where that shines in places. */
const asTheGround = ({ plan: { ground } }: Scene): RippledFinish => {
  const { sheen, roughness, crease } = ground.wet === undefined ? ground : PLAIN_SURFACE;
  return { sheen, roughness, crease };
};

export const newDeck = (scene: Scene, from: PlatePoint, to: PlatePoint): Deck => ({
  id: crypto.randomUUID(),
  name: freeName('Deck', scene.plan.decks),
  outline: [from, { u: to.u, v: from.v }, to, { u: from.u, v: to.v }],
  height: DECK_HEIGHT,
  ...asTheGround(scene),
});

/** A deck that was guessed: a kerb's height up, until someone says otherwise. */
export const guessedDeck = (scene: Scene, { outline }: GuessedDeck): Deck => ({
  ...newDeck(scene, outline[0], outline[1]),
  outline,
});

/** A standee that is stood up is half a barrel, a little creased: people and plants are. */
const STOOD = { roundness: 0.5, crease: 0.3, ...PLAIN_FINISH } as const;

/** A matte stood up. It stands at its lowest place. */
export function newStandee(scene: Scene, matte: { id: string; name: string }, foot: PlatePoint): Standee {
  const taken = scene.plan.standees.some(({ name }) => name === matte.name);
  const name = taken ? freeName(matte.name, scene.plan.standees) : matte.name;
  return { id: crypto.randomUUID(), name, matte: matte.id, foot: footAt(scene, foot), ...STOOD };
}

/** The middle of the lowest row that a coverage reaches; undefined where it covers nothing. */
export function lowestOf({ width, height, data }: CoveragePicture): PlatePoint | undefined {
  for (let y = height - 1; y >= 0; y--) {
    const row = data.subarray(y * width, (y + 1) * width);
    const [left, right] = [row.findIndex((value) => value > 127), row.findLastIndex((value) => value > 127)];
    if (left >= 0) return { u: (left + right + 1) / 2 / width, v: (y + 1) / height };
  }
  return undefined;
}
