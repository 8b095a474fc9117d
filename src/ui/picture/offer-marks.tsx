'use client';

import { cameraOf } from '@/core/picture/camera-of';
import type { GuessedThing } from '@/core/layout/guess-things';
import { pointsOf } from '@/core/geometry/points-of';
import type { PlatePoint } from '@/core/geometry/camera';
import { useScene, useView } from '../editor/editor-context';
import type { Box } from './view-geometry';
import { wallPath } from './wall-path';
import classes from './picture.module.css';

/** The plan that is offered: its horizon, its walls as frames, and what stands in it. */
export function OfferMarks({ box }: { box: Box }) {
  const offer = useView((view) => view.offer);
  const plate = useScene(({ scene }) => scene.plate);
  if (!offer) return null;
  const { plan, things = [] } = offer;
  const camera = cameraOf({ plan, plate });
  const place = ({ u, v }: PlatePoint) => `${u * box.width} ${v * box.height}`;
  const { left, right } = plan.horizon;
  const around = ({ loop }: GuessedThing) => `M${pointsOf(loop).map(place).join('L')}Z`;
  const horizon = `M${place({ u: 0, v: left })}L${place({ u: 1, v: right })}`;
  return (
    <svg className={classes.offered} aria-hidden>
      <path
        className={classes.guess}
        d={[horizon, ...plan.walls.map((wall) => wallPath(camera, wall, place)), ...things.map(around)].join(
          '',
        )}
      />
    </svg>
  );
}
