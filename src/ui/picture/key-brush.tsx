'use client';

import type { PlatePoint } from '@/core/geometry/camera';
import { PlaceHandle } from './place-handle';
import type { Box } from './view-geometry';
import classes from './picture.module.css';

const NUDGE = { step: 0.005, coarse: 8 };

interface KeyBrushProps {
  label: string;
  box: Box;
  at: PlatePoint;
  /** Pixels of the picture. */
  radius: number;
  onMove: (at: PlatePoint) => void;
  /** What Enter does. */
  onPress: () => void;
}

/** A brush that arrow keys move and Enter presses. */
export function KeyBrush({ label, box, at, radius, onMove, onPress }: KeyBrushProps) {
  return (
    <g className={classes.keyBrush}>
      <PlaceHandle
        label={label}
        x={at.u * box.width}
        y={at.v * box.height}
        size={{ grip: radius, knob: 4 }}
        nudge={NUDGE}
        value={at}
        onMove={(from, by) => onMove({ u: from.u + by.u, v: from.v + by.v })}
        onTurn={onPress}
      />
    </g>
  );
}
