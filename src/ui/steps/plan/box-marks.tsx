'use client';

import { project, type PlatePoint } from '@/core/geometry/camera';
import { boxPiece } from '@/core/plan/box-piece';
import { boxAt, boxMeasures, cornerHeight, draggedSide } from '@/core/plan/box-sides';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { cameraOf } from '@/core/picture/camera-of';
import { setSurface } from '@/core/scene/commands';
import type { GroundPlan } from '@/core/scene/schema';
import { useScene } from '../../editor/editor-context';
import { PlaceHandle } from '../../picture/place-handle';
import type { Box } from '../../picture/view-geometry';
import { SURFACE_HANDLE } from './surface-handle';
import classes from '../../picture/picture.module.css';

type Standee = GroundPlan['standees'][number];

/** The edges of a standee that is a box. While it is chosen, the ends of its sides and its top can be dragged. */
export function BoxMarks({ standee, box, isChosen }: { standee: Standee; box: Box; isChosen: boolean }) {
  const scene = useScene((state) => state.scene);
  const { decks } = scene.plan;
  const camera = cameraOf(scene);
  const piece = boxPiece(camera, standee, decks);
  if (!piece || !standee.box) return null;
  const { x, y, z, left, right, height } = piece;
  const seen = (a: number, b: number, up: number) =>
    project(camera, [x + a * left[0] + b * right[0], y + a * left[1] + b * right[1], z + up]);
  const line = (places: (PlatePoint | undefined)[]) =>
    places.every(Boolean)
      ? `M${places.map((at) => `${at!.u * box.width} ${at!.v * box.height}`).join('L')}`
      : '';
  const top = [seen(0, 0, height), seen(1, 0, height), seen(1, 1, height), seen(0, 1, height)];
  const path = [
    line([seen(1, 0, 0), seen(0, 0, 0), seen(0, 1, 0)]),
    line([...top, top[0]]),
    ...(
      [
        [0, 0],
        [1, 0],
        [0, 1],
      ] as const
    ).map(([a, b]) => line([seen(a, b, 0), seen(a, b, height)])),
  ].join('');
  return (
    <>
      <path className={classes.outline} data-chosen={isChosen || undefined} d={path} />
      {isChosen && (
        <>
          <SideEnd standee={standee} side="left" box={box} />
          <SideEnd standee={standee} side="right" box={box} />
          {top[0] && <BoxTop standee={standee} top={top[0]} box={box} />}
        </>
      )}
    </>
  );
}

/** The far end of a side on the ground: dragged, it turns the box and makes the side longer. */
function SideEnd({ standee, side, box }: { standee: Standee; side: 'left' | 'right'; box: Box }) {
  const scene = useScene((state) => state.scene);
  const change = useScene((state) => state.change);
  const at = standee.box![side];
  const { id, name, foot } = standee;
  return (
    <PlaceHandle
      label={`${side === 'left' ? 'Left' : 'Right'} side of ${name}`}
      x={at.u * box.width}
      y={at.v * box.height}
      {...SURFACE_HANDLE}
      value={at}
      onMove={(from, by) => {
        const { decks } = scene.plan;
        const camera = cameraOf(scene);
        const measures = boxMeasures(camera, standee, decks);
        if (!measures) return;
        const to = { u: from.u + by.u, v: from.v + by.v };
        const next = boxAt(camera, foot, decks, draggedSide(camera, foot, decks, measures, side, to));
        if (next)
          change(
            `surface ${id} box ${side}`,
            setSurface(`${name}: ${side} side`, 'standees', id, { box: next }),
          );
      }}
    />
  );
}

/** The top of the near corner: dragged up and down, it sets the height. */
function BoxTop({ standee, top, box }: { standee: Standee; top: PlatePoint; box: Box }) {
  const scene = useScene((state) => state.scene);
  const change = useScene((state) => state.change);
  const { id, name, foot } = standee;
  return (
    <PlaceHandle
      label={`Top of ${name}`}
      x={top.u * box.width}
      y={top.v * box.height}
      {...SURFACE_HANDLE}
      value={top}
      onMove={(from, by) => {
        const up = { u: from.u, v: from.v + by.v };
        const height = clampTo(cornerHeight(cameraOf(scene), foot, scene.plan.decks, up), RANGES.boxHeight);
        change(
          `surface ${id} box height`,
          setSurface(`${name}: height`, 'standees', id, { box: { ...standee.box!, height } }),
        );
      }}
    />
  );
}
