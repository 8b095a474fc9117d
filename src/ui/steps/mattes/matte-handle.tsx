'use client';

import type { Pass } from '@/core/matte/pass';
import type { PlatePoint } from '@/core/geometry/camera';
import { setPass } from '@/core/scene/matte-commands';
import type { Matte } from '@/core/scene/schema';
import { useScene } from '../../editor/editor-context';
import { PlaceHandle } from '../../picture/place-handle';
import type { Box } from '../../picture/view-geometry';

/** Places added to and taken from each other. */
export const add = (a: PlatePoint, b: PlatePoint): PlatePoint => ({ u: a.u + b.u, v: a.v + b.v });
export const less = (a: PlatePoint, b: PlatePoint): PlatePoint => ({ u: a.u - b.u, v: a.v - b.v });

const SIZE = { grip: 12, knob: 4.5 };
const HANDLE_SIZE = { grip: 10, knob: 3 };
const NUDGE = { step: 0.003, coarse: 10 };

interface HandleProps {
  label: string;
  at: PlatePoint;
  box: Box;
  matte: Matte;
  pass: Pass;
  small?: boolean;
  moved: (to: PlatePoint) => Partial<Pass>;
  /** What Delete sets. */
  removed?: Partial<Pass>;
  /** What a double click or Enter does. */
  onTurn?: () => void;
}

/** Something of a pass that is dragged, by keys too. */
export function Handle({ label, at, box, matte, pass, small, moved, removed, onTurn }: HandleProps) {
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const command = (values: Partial<Pass>) =>
    setPass(`${matte.name}: ${label.toLowerCase()}`, matte.id, pass.id, values);
  return (
    <PlaceHandle
      label={label}
      x={at.u * box.width}
      y={at.v * box.height}
      size={small ? HANDLE_SIZE : SIZE}
      nudge={NUDGE}
      value={at}
      onMove={(from, by) =>
        change(`pass ${pass.id} ${label}`, command(moved({ u: from.u + by.u, v: from.v + by.v })))
      }
      onRemove={removed && (() => run(command(removed)))}
      onTurn={onTurn}
    />
  );
}
