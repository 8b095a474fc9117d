'use client';

import { Button } from '@mantine/core';
import { FINISHES } from '@/core/plan/finishes';
import type { RippledFinish } from '@/core/plan/surfaces';
import { RANGES } from '@/core/fields/ranges';
import { NumberRow } from '../../controls/number-row';
import classes from '../../worksheet/worksheet.module.css';

const NAMES = { dry: 'Dry', damp: 'Damp', wet: 'Wet', water: 'Water' } as const;
const KEYS = ['sheen', 'roughness', 'crease'] as const;

interface FinishRowsProps {
  finish: RippledFinish;
  /** The crease that a reset sets. */
  crease: number;
  onSet: (key: (typeof KEYS)[number], label: string, value: number) => void;
  onTake: (label: string, finish: RippledFinish) => void;
}

/** What a surface gives back of the light: a ready-made finish, or its numbers. */
export function FinishRows({ finish, crease, onSet, onTake }: FinishRowsProps) {
  const row = (key: (typeof KEYS)[number], label: string, initial: number) => (
    <NumberRow
      label={label}
      value={finish[key]}
      range={key === 'roughness' ? RANGES.roughness : RANGES.strength}
      initial={initial}
      onChange={(value) => onSet(key, label, value)}
    />
  );
  return (
    <>
      <div className={classes.actions} role="group" aria-label="Finish">
        {(Object.keys(NAMES) as (keyof typeof NAMES)[]).map((name) => {
          const own = FINISHES[name];
          const isOwn = KEYS.every((key) => finish[key] === own[key]);
          return (
            <Button
              key={name}
              size="compact-xs"
              variant={isOwn ? 'filled' : 'default'}
              aria-pressed={isOwn}
              onClick={() => onTake(name, own)}
            >
              {NAMES[name]}
            </Button>
          );
        })}
      </div>
      {row('sheen', 'Sheen', 0)}
      {row('roughness', 'Roughness', FINISHES.dry.roughness)}
      {row('crease', 'Crease', crease)}
    </>
  );
}
