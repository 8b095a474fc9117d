'use client';

import { FINISHES } from '@/core/plan/finishes';
import type { RippledFinish } from '@/core/plan/surfaces';
import { RANGES } from '@/core/fields/ranges';
import { ReadyMade } from './ready-made';
import { NumberRow } from '../../controls/number-row';

const NAMES = { dry: 'Dry', damp: 'Damp', wet: 'Wet', water: 'Water' } as const;

interface FinishRowsProps {
  finish: RippledFinish;
  /** The crease that a reset sets. */
  crease: number;
  onSet: (key: keyof RippledFinish, label: string, value: number) => void;
  onTake: (label: string, finish: RippledFinish) => void;
}

/** What a surface gives back of the light: a ready-made finish, or its numbers. */
export function FinishRows({ finish, crease, onSet, onTake }: FinishRowsProps) {
  const row = (key: keyof RippledFinish, label: string, initial: number) => (
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
      <ReadyMade label="Finish" names={NAMES} sets={FINISHES} now={finish} onTake={onTake} />
      {row('sheen', 'Sheen', 0)}
      {row('roughness', 'Roughness', FINISHES.dry.roughness)}
      {row('crease', 'Crease', crease)}
    </>
  );
}
