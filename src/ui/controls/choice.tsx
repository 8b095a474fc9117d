'use client';

import { NativeSelect } from '@mantine/core';
import classes from '../worksheet/worksheet.module.css';

interface ChoiceProps<Value extends string> {
  caption: string;
  label?: string;
  data: { value: Value; label: string }[];
  value: Value;
  onChange: (value: Value) => void;
}

/** One of a few, by its name. */
export function Choice<Value extends string>({ caption, label, data, value, onChange }: ChoiceProps<Value>) {
  return (
    <div className={classes.pair}>
      <span title={caption}>{caption}</span>
      <NativeSelect
        size="xs"
        aria-label={label ?? caption}
        data={data}
        value={value}
        onChange={({ currentTarget }) => onChange(currentTarget.value as Value)}
      />
    </div>
  );
}
