import { project, type Camera } from '../geometry/camera';
import type { GroundPlan } from '../plan/plan-schema';
import { wallPieces } from '../plan/wall-pieces';
import { placedFoot, type Ground } from './placed-card';
import type { Placed } from './placed-schema';

/** What placed pictures stand and hang on. */
export const groundOf = (camera: Camera, { walls, decks }: GroundPlan): Ground => ({
  walls: wallPieces(camera, walls),
  decks,
});

/** A ground plan with its placed pictures as standees, whose mattes have the pictures' ids. */
export function withPlaced(camera: Camera, plan: GroundPlan, placed: readonly Placed[]): GroundPlan {
  if (placed.length === 0) return plan;
  const ground = groundOf(camera, plan);
  const standees = placed.map((one) => {
    const { id, name, foot, hangs, roundness, crease, sheen, roughness } = one;
    const [x, y] = placedFoot(camera, ground, one);
    return {
      ...{ id, name, matte: id, roundness, crease, sheen, roughness },
      foot: hangs ? (project(camera, [x, y, 0]) ?? foot) : foot,
    };
  });
  return { ...plan, standees: [...plan.standees, ...standees] };
}
