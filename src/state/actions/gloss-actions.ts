import { clampTo, RANGES } from '@/core/fields/ranges';
import type { PlatePoint } from '@/core/geometry/camera';
import { cameraOf } from '@/core/picture/camera-of';
import { boxPiece } from '@/core/plan/box-piece';
import { GLOSS_FORMS } from '@/core/plan/finishes';
import { wallAt } from '@/core/plan/wall-at';
import { wallPieces } from '@/core/plan/wall-pieces';
import type { GroundPlan, Scene } from '@/core/scene/schema';
import { freeName } from './free-name';

type Gloss = GroundPlan['glosses'][number];

const turnOf = (normalX: number, normalY: number) =>
  clampTo(Math.round((Math.atan2(normalX, -normalY) * 180) / Math.PI), RANGES.glossTurn);

/** How far what is seen at a place of the plate is turned, degrees: a side of a box, a wall, or else straight to the eye. */
export function turnAt(scene: Scene, at: PlatePoint): number {
  const camera = cameraOf(scene);
  const { standees, decks, walls } = scene.plan;
  for (const standee of standees) {
    const { foot, box } = standee;
    const piece = boxPiece(camera, standee, decks);
    if (!box || !piece || at.v > foot.v || at.u < box.left.u || at.u > box.right.u) continue;
    const [x, y] = at.u < foot.u ? piece.left : piece.right;
    const toEye = y * piece.x - x * piece.y < 0 ? 1 : -1;
    return turnOf(toEye * y, -toEye * x);
  }
  const wall = wallAt(camera, wallPieces(camera, walls), at);
  return wall ? turnOf(wall.piece.normalX, wall.piece.normalY) : 0;
}

/** A matte that shines as shop glass does, turned as what it lies on. */
export const newGloss = (scene: Scene, matte: { id: string; name: string }, at: PlatePoint): Gloss => ({
  id: crypto.randomUUID(),
  name: scene.plan.glosses.some(({ name }) => name === matte.name)
    ? freeName(matte.name, scene.plan.glosses)
    : matte.name,
  matte: matte.id,
  turn: turnAt(scene, at),
  ...GLOSS_FORMS.glass,
});
