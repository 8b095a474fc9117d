'use client';

import { ActionIcon } from '@mantine/core';
import { IconArrowBackUp } from '@tabler/icons-react';
import type { Range } from '@/core/fields/ranges';
import { NumberField } from './number-field';
import { useGesture } from './use-gesture';
import { useFader, type FaderOptions } from './use-fader';
import classes from './number-row.module.css';

interface NumberRowProps {
  label: string;
  value: number;
  range: Range;
  /** What reset sets. */
  initial: number;
  onChange: (value: number) => void;
  scale?: FaderOptions['scale'];
  /** Background of the track, for one that shows what it sets. */
  track?: string;
  disabled?: boolean;
}

/** A number with its name: dragged, stepped, typed, and put back to where it started. */
export function NumberRow(row: NumberRowProps) {
  const { label, value, range, initial, onChange, scale, track } = row;
  const text = `${value.toFixed(range.decimals)} ${range.unit}`.trim();
  const { position, props } = useFader({
    label,
    value,
    range,
    initial,
    axis: 'right',
    text,
    onChange,
    scale,
  });
  const gesture = useGesture();
  const moved = Math.abs(value - initial) >= range.step / 2;
  return (
    <div className={classes.row}>
      <span className={classes.label} title={label}>
        {label}
      </span>
      <div className={classes.track} {...props}>
        <div className={classes.rail} style={track ? { background: track } : undefined} />
        <div className={classes.knob} style={{ left: `${100 * position}%` }} />
      </div>
      <NumberField
        label={`${label}, value`}
        value={value}
        range={range}
        onChange={onChange}
        className={classes.field}
      />
      <ActionIcon
        className={classes.reset}
        data-moved={moved || undefined}
        disabled={!moved}
        variant="transparent"
        size={16}
        aria-label={`Reset ${label.toLowerCase()}`}
        onClick={() => {
          onChange(initial);
          gesture.end();
        }}
      >
        <IconArrowBackUp size={12} />
      </ActionIcon>
    </div>
  );
}

/** A scale on which equal steps are equal ratios. */
export function ratioScale({ min, max }: Range): NonNullable<FaderOptions['scale']> {
  return {
    toTrack: (value) => Math.log(value / min) / Math.log(max / min),
    toValue: (track) => min * (max / min) ** track,
  };
}
