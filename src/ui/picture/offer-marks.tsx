'use client';

import { cameraOf } from '@/core/picture/camera-of';
import type { PlatePoint } from '@/core/geometry/camera';
import { useScene, useView } from '../editor/editor-context';
import type { Box } from './view-geometry';
import { wallPath } from './wall-path';
import classes from './picture.module.css';

/** The plan that is offered: its horizon, and its walls as frames. */
export function OfferMarks({ box }: { box: Box }) {
  const offer = useView((view) => view.offer);
  const plate = useScene(({ scene }) => scene.plate);
  if (!offer) return null;
  const { plan } = offer;
  const camera = cameraOf({ plan, plate });
  const place = ({ u, v }: PlatePoint) => `${u * box.width} ${v * box.height}`;
  const { left, right } = plan.horizon;
  const horizon = `M${place({ u: 0, v: left })}L${place({ u: 1, v: right })}`;
  return (
    <svg className={classes.offered} aria-hidden>
      <path
        className={classes.guess}
        d={horizon + plan.walls.map((wall) => wallPath(camera, wall, place)).join('')}
      />
    </svg>
  );
}
