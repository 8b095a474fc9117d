import type { PitchedDeck } from './deck-plane';
import { project, rayThrough, type Camera, type PlatePoint } from '../geometry/camera';
import { clamp } from '../plane/clamp';
import { clampTo, RANGES } from '../fields/ranges';
import { hypot } from '../plane/hypot';
import { boxPiece, levelWay } from './box-piece';
import { standsOn, type Standee, type StandingBox } from './surfaces';

/** A place or a way on level ground, metres. */
export type Level = readonly [x: number, y: number];

/** What a person reads and sets of a box. */
export interface BoxMeasures {
  /** Degrees from the right toward ahead that its sides are turned; a quarter more looks the same. */
  turn: number;
  /** Lengths of the two sides that are seen from the near corner, and its height; metres. */
  left: number;
  right: number;
  height: number;
}

type Decks = readonly PitchedDeck[];

const QUARTER = Math.PI / 2;

export const along = ([x, y]: Level, [wx, wy]: Level): number => x * wx + y * wy;

/**
 * The ways along the two sides of a box that lead away from the eye.
 *
 * @param turn of its sides, radians from the right toward ahead
 * @param toward where it is seen
 */
export function sidesSeen(turn: number, toward: Level): { toLeft: Level; toRight: Level } {
  // The right side lies within a quarter to the right of the way on which it is seen.
  const way = Math.atan2(toward[1], toward[0]);
  const heading = way - QUARTER + ((((turn - way) % QUARTER) + QUARTER) % QUARTER);
  const [sin, cos] = [Math.sin(heading), Math.cos(heading)];
  return { toLeft: [-sin, cos], toRight: [cos, sin] };
}

const turnOf = ([x, y]: Level) => {
  const turn = (Math.atan2(y, x) * 180) / Math.PI;
  return ((turn % 90) + 90) % 90;
};

/** The measures of a standee's box; undefined for a card. */
export function boxMeasures(
  camera: Camera,
  standee: Pick<Standee, 'foot' | 'box'>,
  decks: Decks,
): BoxMeasures | undefined {
  const piece = boxPiece(camera, standee, decks);
  if (!piece) return undefined;
  const { left, right, height } = piece;
  return { turn: turnOf(right), left: hypot(...left), right: hypot(...right), height };
}

/** The box of some measures whose near corner stands at a foot; undefined where a corner of it would lie behind the eye. */
export function boxAt(
  camera: Camera,
  foot: PlatePoint,
  decks: Decks,
  { turn, left, right, height }: BoxMeasures,
): StandingBox | undefined {
  const [x, y, z] = standsOn(camera, foot, decks);
  const { toLeft, toRight } = sidesSeen((turn * Math.PI) / 180, [x, y]);
  const end = ([wx, wy]: Level, metres: number) => {
    const long = clampTo(metres, RANGES.boxSide);
    return project(camera, [x + wx * long, y + wy * long, z]);
  };
  const [atLeft, atRight] = [end(toLeft, left), end(toRight, right)];
  return atLeft && atRight && { left: atLeft, right: atRight, height: clampTo(height, RANGES.boxHeight) };
}

/** Least share of a dragged side's way that leads away from the eye: the foot stays the near corner. */
const LEAST_AWAY = 0.02;

/** The measures of a box one side of which was dragged to a place of its level; the other side turns with it. */
export function draggedSide(
  camera: Camera,
  foot: PlatePoint,
  decks: Decks,
  measures: BoxMeasures,
  side: 'left' | 'right',
  to: PlatePoint,
): BoxMeasures {
  const at = standsOn(camera, foot, decks);
  const dragged = levelWay(camera, at, to);
  const far = Math.max(1e-6, hypot(at[0], at[1]));
  const away: Level = [at[0] / far, at[1] / far];
  const aside: Level = side === 'left' ? [-away[1], away[0]] : [away[1], -away[0]];
  const across = Math.max(RANGES.boxSide.min, along(dragged, aside));
  const deep = clamp(along(dragged, away), LEAST_AWAY * across, RANGES.boxSide.max);
  const way: Level = [across * aside[0] + deep * away[0], across * aside[1] + deep * away[1]];
  return { ...measures, turn: turnOf(way), [side]: hypot(...way) };
}

/** How high the top of a standee's near corner is over its foot if it is seen at a place of the plate, metres. */
export function cornerHeight(camera: Camera, foot: PlatePoint, decks: Decks, top: PlatePoint): number {
  const [, y, z] = standsOn(camera, foot, decks);
  const [, ahead, rise] = rayThrough(camera, top);
  return camera.eyeHeight + (rise * y) / Math.max(1e-6, ahead) - z;
}
