'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { PlatePoint } from '@/core/geometry/camera';
import { useGesture } from '../controls/use-gesture';
import { nudgeOf } from './nudge';
import { usePictureDrag } from './use-picture-drag';
import classes from './picture.module.css';

interface PlaceHandleProps<Value> {
  label: string;
  /** Where it is drawn, pixels of the picture. */
  x: number;
  y: number;
  /** Radii of what is grabbed and of what is seen. */
  size: { grip: number; knob: number };
  /** How far an arrow key goes, and how many times as far with Shift. */
  nudge: { step: number; coarse: number };
  value: Value;
  /** Sets the value that it had, moved by so much; by a drag where there is one. */
  onMove: (from: Value, by: PlatePoint, drag?: PointerEvent) => void;
  /** Told when a drag begins, and when it ends. */
  onHold?: (isHeld: boolean) => void;
  /** What Delete does. */
  onRemove?: () => void;
  /** What a double click or Enter does. */
  onTurn?: () => void;
}

/** Something in the picture that is dragged or moved by the arrow keys. */
export function PlaceHandle<Value>(props: PlaceHandleProps<Value>) {
  const { label, x, y, size, nudge, value, onMove, onHold, onRemove, onTurn } = props;
  const gesture = useGesture();
  const start = useRef(value);
  const drag = usePictureDrag({
    onStart: () => {
      start.current = value;
      gesture.hold();
      onHold?.(true);
    },
    onDrag: (by, _at, event) => onMove(start.current, by, event),
    onEnd: () => {
      gesture.end();
      onHold?.(false);
    },
  });
  function onKeyDown(event: KeyboardEvent): void {
    const by = nudgeOf(event, nudge.step, nudge.coarse);
    if (by) onMove(value, by);
    else if (onRemove && (event.key === 'Delete' || event.key === 'Backspace')) onRemove();
    else if (onTurn && event.key === 'Enter') onTurn();
    else return;
    event.preventDefault();
  }
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={label}
      onKeyDown={onKeyDown}
      onBlur={gesture.end}
      onDoubleClick={onTurn}
      {...drag}
    >
      <circle className={classes.grip} cx={x} cy={y} r={size.grip} />
      <circle className={classes.knob} cx={x} cy={y} r={size.knob} />
    </g>
  );
}
