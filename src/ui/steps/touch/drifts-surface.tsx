'use client';

import { useRef } from 'react';
import { MOST_DRIFTS } from '@/core/drift/drift-schema';
import { clampTo, RANGES } from '@/core/fields/ranges';
import type { PlatePoint } from '@/core/geometry/camera';
import { addDrift, removeDrift, setDrift } from '@/core/scene/drift-commands';
import type { Drift } from '@/core/scene/schema';
import { newDrift } from '@/state/actions/drift-actions';
import { useScene, useView } from '../../editor/editor-context';
import { PlaceHandle } from '../../picture/place-handle';
import { usePictureDrag } from '../../picture/use-picture-drag';
import { useWheel } from '../../picture/use-wheel';
import type { Box } from '../../picture/view-geometry';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';
import classes from '../../picture/picture.module.css';

const SIZE = { grip: 15, knob: 5 };
const NUDGE = { step: 0.004, coarse: 5 };
const WHEEL_STEP = 1.08;

/** Drifts in the picture: a click adds one, and each is dragged by its middle, its foot and its side. */
export function DriftsSurface(stage: Stage) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const gestures = usePictureDrag({
    onDrag: () => {},
    onEnd: () => {},
    onClick(at) {
      if (scene.drifts.length >= MOST_DRIFTS) return;
      const made = newDrift(scene, at);
      run(addDrift(made));
      setView({ drift: made.id });
    },
  });
  return (
    <MarksSvg stage={stage} gestures={gestures}>
      {scene.drifts.map((drift) => (
        <DriftMark key={drift.id} drift={drift} box={stage.box} />
      ))}
    </MarksSvg>
  );
}

const moved = (from: PlatePoint, by: PlatePoint): PlatePoint => ({ u: from.u + by.u, v: from.v + by.v });

function DriftMark({ drift, box }: { drift: Drift; box: Box }) {
  const change = useScene((state) => state.change);
  const chosen = useView((view) => view.drift === drift.id);
  const setView = useView((view) => view.set);
  const group = useRef<SVGGElement>(null);
  const { id, name, at, foot, size, tall } = drift;
  const resize = (to: number) =>
    change(`drift ${id} size`, setDrift(`${name}: breadth`, id, { size: clampTo(to, RANGES.driftSize) }));
  useWheel(group, WHEEL_STEP, (factor) => resize(size * factor));
  const [x, y] = [at.u * box.width, at.v * box.height];
  const [footX, footY] = [foot.u * box.width, foot.v * box.height];
  const reach = size * box.width;
  const choose = (isHeld: boolean) => isHeld && setView({ drift: id });
  return (
    <g
      ref={group}
      className={classes.surround}
      data-chosen={chosen || undefined}
      onFocus={() => choose(true)}
    >
      {chosen && <ellipse cx={x} cy={y} rx={reach} ry={reach * tall} />}
      <path className={classes.outline} d={`M${x} ${y}L${footX} ${footY}`} />
      <MoveHandle drift={drift} box={box} onHold={choose} />
      <PlaceHandle
        label={`${name}, foot`}
        x={footX}
        y={footY}
        size={SIZE}
        nudge={NUDGE}
        value={foot}
        onHold={choose}
        onMove={(from, by) =>
          change(`drift ${id} foot`, setDrift(`${name}: foot`, id, { foot: moved(from, by) }))
        }
      />
      {chosen && (
        <PlaceHandle
          label={`${name}, side`}
          x={x + reach}
          y={y}
          size={SIZE}
          nudge={NUDGE}
          value={size}
          onMove={(from, by) => resize(from + by.u)}
        />
      )}
    </g>
  );
}

interface MoveHandleProps {
  drift: Drift;
  box: Box;
  onHold: (isHeld: boolean) => void;
}

/** The middle of a drift; its foot goes along sideways. */
function MoveHandle({ drift: { id, name, at, foot }, box, onHold }: MoveHandleProps) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  return (
    <PlaceHandle
      label={name}
      x={at.u * box.width}
      y={at.v * box.height}
      size={SIZE}
      nudge={NUDGE}
      value={{ at, foot }}
      onHold={onHold}
      onRemove={() => run(removeDrift(id))}
      onMove={(from, by) =>
        change(
          `drift ${id} at`,
          setDrift(`Move ${name}`, id, {
            at: moved(from.at, by),
            foot: { u: from.foot.u + by.u, v: from.foot.v },
          }),
        )
      }
    />
  );
}
