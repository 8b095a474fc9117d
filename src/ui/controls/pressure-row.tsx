'use client';

import { NativeSelect } from '@mantine/core';
import type { PaintStroke } from '@/core/matte/pass';
import classes from '../worksheet/worksheet.module.css';

type Pressure = PaintStroke['pressure'];

const PRESSURES: { value: Pressure; label: string }[] = [
  { value: 'none', label: 'sets nothing' },
  { value: 'flow', label: 'sets the flow' },
  { value: 'size', label: 'sets the size' },
  { value: 'both', label: 'sets both' },
];

/** What the pressure of a pen sets. */
export function PressureRow({ value, onChange }: { value: Pressure; onChange: (next: Pressure) => void }) {
  return (
    <div className={classes.pair}>
      <span>Pressure</span>
      <NativeSelect
        size="xs"
        aria-label="What pressure sets"
        value={value}
        data={PRESSURES}
        onChange={(event) => onChange(event.currentTarget.value as Pressure)}
      />
    </div>
  );
}
