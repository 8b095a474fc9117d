import { cameraOf } from '@/core/picture/camera-of';
import type { PlatePoint } from '@/core/geometry/camera';
import { boxAt, boxMeasures } from '@/core/plan/box-sides';
import type { CoveragePicture } from '@/core/matte/coverage-picture';
import { fitBox } from '@/core/plan/fit-box';
import { standsOn } from '@/core/plan/surfaces';
import { wallPieces, type WallPiece } from '@/core/plan/wall-pieces';
import { hypot } from '@/core/plane/hypot';
import type { GroundPlan, Scene } from '@/core/scene/schema';

type Standee = GroundPlan['standees'][number];

/** How far a place of the ground lies from a wall's foot, metres. */
function wayFrom({ ax, ay, bx, by }: WallPiece, x: number, y: number): number {
  const [ex, ey] = [bx - ax, by - ay];
  const share = Math.min(1, Math.max(0, ((x - ax) * ex + (y - ay) * ey) / (ex * ex + ey * ey)));
  return hypot(x - ax - share * ex, y - ay - share * ey);
}

/**
 * A standee as a box, as its matte shows it: things stand along what they stand near, so it is turned as the nearest wall is, if any was
 * drawn.
 *
 * @returns undefined where its lower edge is not seen on the ground
 */
export function boxed(
  scene: Pick<Scene, 'plan' | 'plate'>,
  { foot }: Pick<Standee, 'foot'>,
  coverage: CoveragePicture,
): Pick<Standee, 'foot' | 'box'> | undefined {
  const camera = cameraOf(scene);
  const { walls, decks } = scene.plan;
  const [x, y] = standsOn(camera, foot, decks);
  const pieces = wallPieces(camera, walls).sort((p, q) => wayFrom(p, x, y) - wayFrom(q, x, y));
  const nearest = pieces.at(0);
  const turns = nearest && [Math.atan2(nearest.by - nearest.ay, nearest.bx - nearest.ax)];
  return fitBox(camera, decks, coverage, foot, { turns, walls: pieces });
}

/** What of a standee changes when its foot is dragged: a box goes along, as large and turned as it is. */
export function footMoved(
  scene: Pick<Scene, 'plan' | 'plate'>,
  id: string,
  foot: PlatePoint,
): Partial<Pick<Standee, 'foot' | 'box'>> {
  const { decks, standees } = scene.plan;
  const camera = cameraOf(scene);
  const standee = standees.find((one) => one.id === id);
  const measures = standee && boxMeasures(camera, standee, decks);
  const box = measures && boxAt(camera, foot, decks, measures);
  return { foot, ...(box && { box }) };
}
