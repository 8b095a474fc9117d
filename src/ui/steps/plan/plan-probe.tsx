'use client';

import { cameraOf } from '@/core/picture/camera-of';
import type { PlatePoint } from '@/core/geometry/camera';
import { FARTHEST_GROUND, horizonAt } from '@/core/geometry/ground';
import { wallPieces } from '@/core/plan/wall-pieces';
import { placeSeen, wallAt } from '@/core/plan/wall-at';
import { useScene } from '../../editor/editor-context';
import classes from '../../picture/picture.module.css';

/** How far off the ground plan says the place under the pointer is, and how high on a wall. */
export function PlanProbe({ at }: { at: PlatePoint }) {
  const scene = useScene((state) => state.scene);
  const camera = cameraOf(scene);
  const walls = wallPieces(camera, scene.plan.walls);
  const onWall = wallAt(camera, walls, at);
  const [x, y, z] = placeSeen(camera, walls, at);
  const metres = Math.hypot(x, y);
  const isFar = !onWall && (at.v <= horizonAt(scene.plan.horizon, at.u) || metres > FARTHEST_GROUND / 2);
  return (
    <dl className={classes.probe} data-testid="distance">
      <dt>{onWall ? 'wall' : isFar ? 'above the ground' : 'ground'}</dt>
      <dd>{isFar ? '—' : `${metres.toFixed(metres < 20 ? 1 : 0)} m off`}</dd>
      {onWall && (
        <>
          <dt>up</dt>
          <dd>{z.toFixed(1)} m</dd>
        </>
      )}
    </dl>
  );
}
