'use client';

import type { CSSProperties } from 'react';
import { RANGES } from '@/core/scene/ranges';
import { NumberField } from '../controls/number-field';
import { useFader } from '../controls/use-fader';
import classes from './desk.module.css';

interface StripFaderProps {
  label: string;
  value: number;
  /** Colour of the drop and of the light down its track. */
  color: string;
  lit: boolean;
  onChange: (value: number) => void;
  /** What a double click sets. */
  initial?: number;
  /** A short name under a fader that is one of several on its strip. */
  caption?: string;
}

/** One fader of the desk, in stops; at its lowest it is off. */
export function StripFader({ label, value, color, lit, onChange, caption, initial = 0 }: StripFaderProps) {
  const range = RANGES.level;
  const off = value <= range.min;
  const text = off ? 'off' : `${value > 0 ? '+' : ''}${value.toFixed(1)} stops`;
  const { position, props } = useFader({
    label,
    value,
    range,
    initial,
    axis: 'up',
    text,
    onChange,
  });
  const zero = (0 - range.min) / (range.max - range.min);
  return (
    <div
      className={classes.fader}
      style={{ '--drop': color } as CSSProperties}
      data-lit={(lit && !off) || undefined}
    >
      <NumberField
        label={`${label}, stops`}
        value={value}
        range={{ ...range, unit: '' }}
        onChange={onChange}
        reads={off ? 'off' : undefined}
        className={classes.value}
      />
      <div className={classes.track} {...props}>
        <div className={classes.slot} />
        <div className={classes.zero} style={{ bottom: `${100 * zero}%` }} />
        <div className={classes.throw} style={{ height: `${100 * position}%` }} />
        <div className={classes.drop} style={{ bottom: `${100 * position}%` }} />
      </div>
      {caption && <span className={classes.caption}>{caption}</span>}
    </div>
  );
}
