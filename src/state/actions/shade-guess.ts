import { guessShade } from '@/core/day/guess-shade';
import { tonesOf } from '@/core/day/wall-tones';
import { coveredShare, type CoveragePicture } from '@/core/matte/coverage-picture';
import { cameraOf } from '@/core/picture/camera-of';
import { wallPieces } from '@/core/plan/wall-pieces';
import { piecesSeen } from '@/core/relief/pieces-seen';
import type { Scene } from '@/core/scene/schema';
import type { LandPicture } from '@/engine/readouts/land';

/** Share of the picture that the sun's shadow on the ground covers from which the day has sun. */
const SUNNY = 0.01;

/** Share of the picture up to which a piece of a wall tells nothing. */
const SILENT = 0.002;

/** From here on a pixel of the ground lies in the shadow, 0 to 255. */
const IN_SHADOW = 25;

/**
 * How many stops each wall of a plan is darker than if the sun shone on it, as the day's own tones tell: none without a shadow of the sun.
 *
 * @param land of that plan
 * @param shadow what the sun's shadow covers on the ground, of the same size
 */
function guessedShades(
  { plan, plate }: Pick<Scene, 'plan' | 'plate'>,
  land: LandPicture,
  shadow: CoveragePicture,
): number[] {
  if (coveredShare(shadow) < SUNNY) return plan.walls.map(() => 0);
  const camera = cameraOf({ plan, plate });
  const owned = plan.walls.flatMap((wall, k) => wallPieces(camera, [wall]).map((piece) => ({ piece, k })));
  const pieces = owned.map(({ piece }) => piece);
  const seen = piecesSeen(land, land, camera, pieces);
  const lit = Uint8Array.from(land.level, (level, i) =>
    level > 0.5 && land.land[i] > 0.5 && shadow.data[i] < IN_SHADOW ? 1 : 0,
  );
  const [ground] = tonesOf(land.plate, lit, 1);
  const walls = tonesOf(land.plate, seen, pieces.length).map(({ pixels, level }, i) => ({
    facing: [pieces[i].normalX, pieces[i].normalY] as const,
    area: pixels / seen.length,
    level,
  }));
  const shades = guessShade(walls, ground.level);
  // A wall around a corner has one number: what of it the sun may shine on counts.
  return plan.walls.map((_, k) => {
    const own = shades.filter((_shade, i) => owned[i].k === k && walls[i].area > SILENT);
    return own.length > 0 ? Math.min(...own) : 0;
  });
}

/** Walls of which nothing is said yet that are guessed to lie in the shade, by their ids: how many stops it darkens them. */
export function shadesToSay(
  scene: Pick<Scene, 'plan' | 'plate'>,
  land: LandPicture,
  shadow: CoveragePicture,
): Map<string, number> {
  const shades = guessedShades(scene, land, shadow);
  const said = scene.plan.walls.map(({ id, dayShade }, k) => [id, dayShade ? 0 : shades[k]] as const);
  return new Map(said.filter(([, stops]) => stops > 0));
}

/** What is guessed of walls of which still nothing is said: looking takes a while, and what a person says meanwhile counts. */
export const stillUnsaid = (
  { plan }: Pick<Scene, 'plan'>,
  found: ReadonlyMap<string, number>,
): Map<string, number> =>
  new Map([...found].filter(([id]) => plan.walls.some((wall) => wall.id === id && !wall.dayShade)));

/** The walls of a plan with what is guessed of the shade that they lie in. */
export const shadedWalls = (
  scene: Pick<Scene, 'plan' | 'plate'>,
  land: LandPicture,
  shadow: CoveragePicture,
): Scene['plan']['walls'] => {
  const shades = guessedShades(scene, land, shadow);
  return scene.plan.walls.map((wall, k) => ({ ...wall, dayShade: shades[k] || undefined }));
};
