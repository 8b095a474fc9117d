'use client';

import { setNightPart } from '@/core/scene/commands';
import { clampTo, RANGES } from '@/core/fields/ranges';
import type { Night } from '@/core/scene/schema';
import { useScene } from '../../editor/editor-context';
import type { Box } from '../../picture/view-geometry';
import { PlaceHandle } from '../../picture/place-handle';
import classes from '../../picture/picture.module.css';

type Surround = Night['surround'];

const SIZE = { grip: 16, knob: 5 };
const NUDGE = { step: 0.01, coarse: 5 };
/** The ring that stays open when the surroundings are darkened: dragged at its middle, widened at its rim. */
export function SurroundMarks({ box }: { box: Box }) {
  const surround = useScene(({ scene }) => scene.night.surround);
  const { at, across, down } = surround;
  const [x, y] = [at.u * box.width, at.v * box.height];
  return (
    <g className={classes.surround}>
      <ellipse cx={x} cy={y} rx={across * box.width} ry={down * box.height} />
      <Handle
        label="Middle of the pool"
        x={x}
        y={y}
        surround={surround}
        moved={({ at: from }, by) => ({ at: { u: from.u + by.u, v: from.v + by.v } })}
      />
      <Handle
        label="Width of the pool"
        x={x + across * box.width}
        y={y}
        surround={surround}
        moved={(from, by) => ({ across: clampTo(from.across + by.u, RANGES.poolSize) })}
      />
      <Handle
        label="Height of the pool"
        x={x}
        y={y + down * box.height}
        surround={surround}
        moved={(from, by) => ({ down: clampTo(from.down + by.v, RANGES.poolSize) })}
      />
    </g>
  );
}

interface HandleProps {
  label: string;
  x: number;
  y: number;
  surround: Surround;
  moved: (from: Surround, by: { u: number; v: number }) => Partial<Surround>;
}

function Handle({ label, x, y, surround, moved }: HandleProps) {
  const change = useScene((state) => state.change);
  return (
    <PlaceHandle
      label={label}
      x={x}
      y={y}
      size={SIZE}
      nudge={NUDGE}
      value={surround}
      onMove={(from, by) => change(`surround ${label}`, setNightPart(label, 'surround', moved(from, by)))}
    />
  );
}
