import { clampTo, RANGES } from '@/core/fields/ranges';
import type { PlatePoint } from '@/core/geometry/camera';
import { outlineArea } from '@/core/geometry/outline-area';
import { middleOf } from '@/core/plane/middle-of';
import type { Fixture, FixtureValues, Scene } from '@/core/scene/schema';
import type { LandPicture } from '@/engine/readouts/land';
import { newFixture } from './fixture-actions';
import { seenFoot } from './windows';

/** A window that a click may mean: its corners, and where it stands if no wall of the plan says so. */
export interface WindowMeant {
  path: PlatePoint[];
  foot?: PlatePoint;
}

/** All that a click may mean by their size, the smallest first. */
export const windowsBySize = (
  scene: Scene,
  outlines: readonly PlatePoint[][],
  lie?: LandPicture,
): WindowMeant[] =>
  outlines
    .map((path) => ({ path, foot: lie && seenFoot(scene, lie, middleOf(path)) }))
    .sort((a, b) => outlineArea(a.path) - outlineArea(b.path));

/** Which way from one window to another. */
export const WAYS = ['smaller', 'larger'] as const;
export type Way = (typeof WAYS)[number];

/** How much two areas differ at least to be of two windows. */
const OTHER = 1.001;

/** The next larger of some windows than an outline, or the next smaller; undefined where there is none. */
export function nextWindow(
  bySize: readonly WindowMeant[],
  path: readonly PlatePoint[],
  way: Way,
): WindowMeant | undefined {
  const area = outlineArea(path);
  return way === 'larger'
    ? bySize.find((one) => outlineArea(one.path) > area * OTHER)
    : bySize.findLast((one) => outlineArea(one.path) < area / OTHER);
}

/** What is set of a lit pane to make it another window: it is as bright as before, so its power goes with its size. */
export function asWindow(scene: Scene, pane: Fixture, { path, foot }: WindowMeant): FixtureValues {
  const circuit = scene.circuits.find(({ id }) => id === pane.circuit)!;
  const fresh = newFixture(scene, pane.kind, middleOf(path), path, circuit);
  const ratio = outlineArea(path) / Math.max(1e-9, outlineArea(pane.path));
  return {
    ...{ at: fresh.at, path, foot: foot ?? fresh.foot, aim: foot ?? fresh.aim },
    lumens: clampTo(pane.lumens * ratio, RANGES.lumens),
  };
}
