'use client';

import { useState } from 'react';
import type { Range } from '@/core/fields/ranges';
import { snap } from './use-fader';
import { useGesture } from './use-gesture';

interface NumberFieldProps {
  label: string;
  value: number;
  range: Range;
  onChange: (value: number) => void;
  /** What is read instead of the number, while it is not typed in. */
  reads?: string;
  className?: string;
}

/** A number as it stands in its field. */
function format(value: number, { decimals, unit }: Range): string {
  const digits = Math.abs(value).toFixed(decimals);
  return `${value < 0 && Number(digits) !== 0 ? '−' : ''}${digits}${unit ? ` ${unit}` : ''}`;
}

/** What a person typed, as a number: with a comma or a point, with or without its unit. Undefined for what is none. */
export function parseNumber(text: string): number | undefined {
  const match = /^\s*([+\-−]?)\s*(\d[\d\s]*)?(?:[.,](\d+))?/.exec(text);
  if (!match || (match[2] === undefined && match[3] === undefined)) return undefined;
  const [, sign, whole = '0', part = '0'] = match;
  const size = Number(`${whole.replace(/\s/g, '')}.${part}`);
  return sign === '-' || sign === '−' ? -size : size;
}

/**
 * A number that is typed, or stepped with the arrow keys. What is typed counts on Enter or when the field is left; Escape
 * puts it back. A plain input: dozens of these are on the screen while a lamp is dragged.
 */
export function NumberField({ label, value, range, onChange, reads, className }: NumberFieldProps) {
  const gesture = useGesture();
  const [typed, setTyped] = useState<string>();
  const commit = () => {
    const number = typed === undefined ? undefined : parseNumber(typed);
    if (number !== undefined) onChange(snap(number, range));
    setTyped(undefined);
    gesture.end();
  };
  return (
    <input
      aria-label={label}
      className={className}
      data-resting={typed === undefined || undefined}
      inputMode="decimal"
      autoComplete="off"
      spellCheck={false}
      value={typed ?? reads ?? format(value, range)}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onFocus={(event) => event.currentTarget.select()}
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
