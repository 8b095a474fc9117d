'use client';

import { NumberInput } from '@mantine/core';
import { useState } from 'react';
import type { Range } from '@/core/scene/ranges';
import { snap } from './use-fader';

interface NumberFieldProps {
  label: string;
  value: number;
  range: Range;
  onChange: (value: number) => void;
  onSettle: () => void;
  className?: string;
}

/** A number that is typed, or stepped with the arrow keys. What is typed counts on Enter or when the field is left. */
export function NumberField({ label, value, range, onChange, onSettle, className }: NumberFieldProps) {
  const [typed, setTyped] = useState<string | number>();
  const commit = () => {
    const number = Number(typed);
    if (typed !== undefined && typed !== '' && Number.isFinite(number)) onChange(snap(number, range));
    setTyped(undefined);
    onSettle();
  };
  return (
    <NumberInput
      aria-label={label}
      className={className}
      variant="unstyled"
      size="xs"
      hideControls
      value={typed ?? Number(value.toFixed(range.decimals))}
      decimalScale={range.decimals}
      fixedDecimalScale
      suffix={range.unit ? ` ${range.unit}` : ''}
      thousandSeparator={'\u202f'}
      allowNegative={range.min < 0}
      onChange={setTyped}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
        if (event.key === 'Escape') setTyped(undefined);
        if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
        event.preventDefault();
        const step = range.step * (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1);
        setTyped(undefined);
        onChange(snap(value + step, range));
      }}
    />
  );
}
