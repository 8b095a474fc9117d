'use client';

import { cameraOf } from '@/core/picture/camera-of';
import type { PlatePoint } from '@/core/geometry/camera';
import { setSurface, type SurfaceKind } from '@/core/scene/commands';
import { clampTo, RANGES } from '@/core/fields/ranges';
import type { GroundPlan } from '@/core/scene/schema';
import { footMoved } from '@/state/actions/box-actions';
import { footAt, heightOf, middleOfWall } from '@/state/actions/plan-actions';
import { useScene, useView } from '../../editor/editor-context';
import { BoxMarks } from './box-marks';
import { SURFACE_HANDLE } from './surface-handle';
import { useFootEdges } from './use-foot-edges';
import { PlaceHandle } from '../../picture/place-handle';
import type { Box } from '../../picture/view-geometry';
import { wallPath } from '../../picture/wall-path';
import classes from '../../picture/picture.module.css';

/** Walls, decks and feet of standees in the picture. The chosen one can be dragged by its corners. */
export function SurfaceMarks({ box }: { box: Box }) {
  const scene = useScene((state) => state.scene);
  const chosen = useView((view) => view.surface);
  const drawing = useView((view) => view.drawing);
  const camera = cameraOf(scene);
  const { walls, decks } = scene.plan;
  const place = ({ u, v }: PlatePoint) => `${u * box.width} ${v * box.height}`;
  return (
    <g className={classes.surround}>
      {walls.map((wall) => (
        <path
          key={wall.id}
          className={classes.outline}
          data-chosen={wall.id === chosen || undefined}
          d={wallPath(camera, wall, place)}
        />
      ))}
      {decks.map(({ id, outline }) => (
        <path
          key={id}
          className={classes.outline}
          data-chosen={id === chosen || undefined}
          d={`M${outline.map(place).join('L')}Z`}
        />
      ))}
      {drawing === 'wall' &&
        walls.flatMap(({ id, foot }) =>
          [foot[0], foot.at(-1)!].map((at, end) => (
            <circle
              key={`${id} ${end}`}
              className={classes.knob}
              pointerEvents="none"
              cx={at.u * box.width}
              cy={at.v * box.height}
              r={SURFACE_HANDLE.size.knob}
            />
          )),
        )}
      {!drawing && <Corners box={box} />}
    </g>
  );
}

/** The corners of the chosen surface, and the feet of all standees. */
function Corners({ box }: { box: Box }) {
  const { walls, decks, standees } = useScene(({ scene }) => scene.plan);
  const chosen = useView((view) => view.surface);
  const corners = (kind: 'walls' | 'decks', id: string, points: PlatePoint[]) =>
    id === chosen
      ? points.map((at, index) => <Corner key={`${id} ${index}`} {...{ kind, id, points, index, at, box }} />)
      : [];
  return (
    <>
      {walls.flatMap(({ id, foot }) => corners('walls', id, foot))}
      {walls.map((wall) => wall.id === chosen && <WallTop key={`${wall.id} top`} wall={wall} box={box} />)}
      {decks.flatMap(({ id, outline }) => corners('decks', id, outline))}
      {standees.map((standee) => (
        <BoxMarks key={`${standee.id} box`} standee={standee} box={box} isChosen={standee.id === chosen} />
      ))}
      {standees.map(({ id, name, foot }) => (
        <Corner key={id} kind="standees" id={id} points={[foot]} index={0} at={foot} box={box} name={name} />
      ))}
    </>
  );
}

/** Where a top that lies outside the picture is shown, fraction of the height: just within it. */
const EDGE_OF_TOP = 0.015;

/** The top of a wall over its middle: dragged up and down, it sets the height. */
function WallTop({ wall, box }: { wall: GroundPlan['walls'][number]; box: Box }) {
  const scene = useScene((state) => state.scene);
  const change = useScene((state) => state.change);
  const line = middleOfWall(scene, wall);
  if (!line) return null;
  const [foot, top] = line;
  return (
    <PlaceHandle
      label={`Top of ${wall.name}`}
      x={top.u * box.width}
      y={Math.max(EDGE_OF_TOP, top.v) * box.height}
      {...SURFACE_HANDLE}
      value={top}
      onMove={(from, by) => {
        const height = clampTo(
          heightOf(scene, [foot, { u: top.u, v: Math.min(foot.v, from.v + by.v) }]),
          RANGES.wallHeight,
        );
        change(`surface ${wall.id} height`, setSurface(`${wall.name}: height`, 'walls', wall.id, { height }));
      }}
    />
  );
}

interface CornerProps {
  kind: SurfaceKind;
  id: string;
  points: PlatePoint[];
  index: number;
  at: PlatePoint;
  box: Box;
  name?: string;
}

function Corner({ kind, id, points, index, at, box, name }: CornerProps) {
  const scene = useScene((state) => state.scene);
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const { seek, snap } = useFootEdges();
  const label = kind === 'standees' ? `Foot of ${name}` : `Corner ${index + 1}`;
  const moved = (to: PlatePoint) => points.map((point, i) => (i === index ? to : point));
  const set = (values: PlatePoint[], held: (at: PlatePoint) => PlatePoint) => {
    if (kind === 'walls') return setSurface('Wall: corner', 'walls', id, { foot: values.map(held) });
    if (kind === 'decks') return setSurface('Deck: corner', 'decks', id, { outline: values });
    return setSurface(`${name}: foot`, 'standees', id, footMoved(scene, id, held(values[0])));
  };
  const fewest = kind === 'walls' ? 2 : 3;
  return (
    <PlaceHandle
      label={label}
      x={at.u * box.width}
      y={at.v * box.height}
      {...SURFACE_HANDLE}
      value={at}
      onHold={(isHeld) => {
        if (kind !== 'walls') return;
        setView({ surveyAt: isHeld ? scene.plan : undefined });
        if (isHeld) seek();
      }}
      onMove={(from, by, drag) => {
        if (kind === 'standees') setView({ surface: id });
        const free = { u: from.u + by.u, v: from.v + by.v };
        const beside = points[index === 0 ? 1 : index - 1];
        const to = kind === 'walls' && drag ? snap(free, beside, drag.altKey) : free;
        change(
          `surface ${id} ${index}`,
          set(moved(to), (point) => footAt(scene, point)),
        );
      }}
      onRemove={
        kind !== 'standees' && points.length > fewest
          ? () =>
              run(
                set(
                  points.filter((_, i) => i !== index),
                  (point) => point,
                ),
              )
          : undefined
      }
    />
  );
}
