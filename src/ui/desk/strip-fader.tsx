'use client';

import type { CSSProperties } from 'react';
import { RANGES, type Range } from '@/core/fields/ranges';
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
  /** What it sets, stops of light unless said otherwise. */
  range?: Range;
  /** A short name under a fader that is one of several on its strip. */
  caption?: string;
}

/** One fader of the desk, in stops; at its lowest it is off. */
export function StripFader(props: StripFaderProps) {
  const { label, value, color, lit, onChange, caption, initial = 0, range = RANGES.level } = props;
  // Only at the lowest of its stops light is off.
  const off = range === RANGES.level && value <= range.min;
  const text = off ? 'off' : `${value > 0 ? '+' : ''}${value.toFixed(range.decimals)} ${range.unit}`;
  const { position, props: fader } = useFader({
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
        label={`${label}, ${range.unit}`}
        value={value}
        range={{ ...range, unit: '' }}
        onChange={onChange}
        reads={off ? 'off' : undefined}
        className={classes.value}
      />
      <div className={classes.track} {...fader}>
        <div className={classes.slot} />
        <div className={classes.zero} style={{ bottom: `${100 * zero}%` }} />
        <div className={classes.throw} style={{ height: `${100 * position}%` }} />
        <div className={classes.drop} style={{ bottom: `${100 * position}%` }} />
      </div>
      {caption && <span className={classes.caption}>{caption}</span>}
    </div>
  );
}
