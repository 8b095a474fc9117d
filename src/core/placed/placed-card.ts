import { project, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import type { Vec3 } from '../geometry/vec3';
import { standsOn, type Deck } from '../plan/surfaces';
import { wallAt } from '../plan/wall-at';
import type { WallPiece } from '../plan/wall-pieces';
import type { Placed } from './placed-schema';

/** Nearest that a placed picture may stand to the eye, metres. */
const NEAREST = 0.1;

/** A placed picture in the world: an upright plane on which what stands has a width and a height. */
export interface Card {
  /** The middle of its lower side, world axes, metres. */
  foot: Vec3;
  /** Of what stands, metres. */
  width: number;
  height: number;
  /** How far it faces aside and leans to the right, radians. */
  turn: number;
  lean: number;
  flip: boolean;
  /** The part of the picture that stands, fractions of its sides. */
  body: Placed['body'];
}

/** The surfaces that a placed picture may stand or hang on. */
export interface Ground {
  walls: readonly WallPiece[];
  decks: readonly Pick<Deck, 'outline' | 'height'>[];
}

type Standing = Pick<Placed, 'foot' | 'hangs'>;

/** Where the foot of a placed picture is in the world. One that hangs where no wall is seen stands on the ground. */
export function placedFoot(camera: Camera, { walls, decks }: Ground, { foot, hangs }: Standing): Vec3 {
  const hit = hangs ? wallAt(camera, walls, foot) : undefined;
  const [x, y, z] = hit?.place ?? standsOn(camera, foot, decks);
  return [x, Math.max(NEAREST, y), z];
}

/** The card of a placed picture. */
export function cardOf(camera: Camera, ground: Ground, placed: Placed): Card {
  const { body, tall, turn, lean, flip, width, height } = placed;
  const shape = ((body.right - body.left) * width) / ((body.bottom - body.top) * height);
  return {
    foot: placedFoot(camera, ground, placed),
    ...{ width: tall * shape, height: tall, flip, body },
    turn: (turn * Math.PI) / 180,
    lean: (lean * Math.PI) / 180,
  };
}

/** The world place of a card at `across` of its width from its left and `up` of its height, as it is seen before it is flipped. */
export function cardPoint(card: Card, across: number, up: number): Vec3 {
  const [x, z] = [(across - 0.5) * card.width, up * card.height];
  const [cos, sin] = [Math.cos(card.lean), Math.sin(card.lean)];
  const along = cos * x + sin * z;
  const [fx, fy, fz] = card.foot;
  return [fx + along * Math.cos(card.turn), fy + along * Math.sin(card.turn), fz + cos * z - sin * x];
}

/** What tells where a ray from the eye meets a card, found once. */
export interface CardSight {
  /** Distance to the plane is `gap` over the ray's own way toward it. */
  gap: number;
  /** Cosine and sine of its turn and of its lean. */
  cosTurn: number;
  sinTurn: number;
  cosLean: number;
  sinLean: number;
  card: Card;
  eyeHeight: number;
}

export function sightOf({ eyeHeight }: Camera, card: Card): CardSight {
  const [cosTurn, sinTurn] = [Math.cos(card.turn), Math.sin(card.turn)];
  const [cosLean, sinLean] = [Math.cos(card.lean), Math.sin(card.lean)];
  const gap = cosTurn * card.foot[1] - sinTurn * card.foot[0];
  return { gap, cosTurn, sinTurn, cosLean, sinLean, card, eyeHeight };
}

/**
 * Where a ray from the eye meets a card.
 *
 * @param out x and y in the picture, fractions of its sides from the top left
 * @returns how many times the ray's length it lies off; Infinity where it is not met
 */
export function meetCard(out: Float64Array, sight: CardSight, rx: number, ry: number, rz: number): number {
  const { gap, cosTurn, sinTurn, cosLean, sinLean, eyeHeight } = sight;
  const reach = gap / (cosTurn * ry - sinTurn * rx);
  if (!(reach > 0) || !Number.isFinite(reach)) return Infinity;
  const { foot, width, height, flip, body } = sight.card;
  const along = (rx * reach - foot[0]) * cosTurn + (ry * reach - foot[1]) * sinTurn;
  const rise = eyeHeight + rz * reach - foot[2];
  const across = (cosLean * along - sinLean * rise) / width;
  const x = 0.5 + (flip ? -across : across);
  const y = 1 - (cosLean * rise + sinLean * along) / height;
  out[0] = body.left + x * (body.right - body.left);
  out[1] = body.top + y * (body.bottom - body.top);
  return reach;
}

/** The corners of what stands as they are seen: lower left, lower right, upper right, upper left. Those behind the eye are left out. */
export const cardCorners = (camera: Camera, card: Card): PlatePoint[] =>
  (
    [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ] as const
  ).flatMap(([across, up]) => project(camera, cardPoint(card, across, up)) ?? []);

/** Where on what stands a place of the plate lies: fractions from the left and from below; undefined where the card is not met. */
export function onCard(
  camera: Camera,
  card: Card,
  at: PlatePoint,
): { across: number; up: number } | undefined {
  const place = new Float64Array(2);
  const upright = { ...card, flip: false, body: { left: 0, top: 0, right: 1, bottom: 1 } };
  const ray = rayThrough(camera, at);
  if (meetCard(place, sightOf(camera, upright), ...ray) === Infinity) return undefined;
  return { across: place[0], up: 1 - place[1] };
}
