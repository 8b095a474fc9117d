import { cameraOf } from '@/core/picture/camera-of';
import { withPlaced } from '@/core/placed/placed-land';
import type { GroundPlan, Scene } from '@/core/scene/schema';
import type { Spot } from '../graph/spot';

/** What of a document says where light finds what: the ground plan, and the plate's shape. */
export type Land = { plan: GroundPlan; plate: Pick<Scene['plate'], 'width' | 'height'> };

/** What the sun leaves dark is only of the plate's colour, and mirrors come after the light. */
const withoutSun = (plan: GroundPlan): GroundPlan => ({
  ...plan,
  walls: plan.walls.map((wall) => ({ ...wall, dayShade: undefined })),
  sunShadow: undefined,
  mirrors: 0,
});

const standingPlan = (scene: Scene): GroundPlan =>
  withoutSun(withPlaced(cameraOf(scene), scene.plan, scene.placed));

const shapeOf = ({ width, height }: Scene['plate']) => ({ width, height });

/** The land with what was placed on it, whose standees have mattes of their own (`standing`). */
export const landOf = ({ scene, memo }: Pick<Spot, 'scene' | 'memo'>): Land => ({
  plan: scene.placed.length > 0 ? memo(standingPlan, scene) : memo(withoutSun, scene.plan),
  plate: memo(shapeOf, scene.plate),
});
