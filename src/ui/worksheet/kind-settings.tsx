'use client';

import { UnstyledButton } from '@mantine/core';
import type { OwnSetting } from '@/core/fixture/kind';
import { KINDS } from '@/core/fixture/kinds';
import { tubePieces } from '@/core/fixture/tube-pieces';
import { setFixture } from '@/core/scene/commands';
import { RANGES, type Range } from '@/core/scene/ranges';
import type { Fixture } from '@/core/scene/schema';
import { NumberRow } from '../controls/number-row';
import { useScene } from '../editor/editor-context';
import classes from './kind-settings.module.css';

const SEED: Range = { min: 0, max: 9999, step: 1, unit: '', decimals: 0 };

const ROWS = {
  interior: { label: 'Interior', range: RANGES.strength },
  curtains: { label: 'Curtains', range: RANGES.strength },
  depth: { label: 'Lamp behind', range: RANGES.depth },
  vary: { label: 'Differ', range: RANGES.strength },
  unlit: { label: 'Dark ones', range: RANGES.strength },
  seed: { label: 'Seed', range: SEED },
  standOff: { label: 'Stands off', range: RANGES.standOff },
  count: { label: 'Bulbs', range: RANGES.count },
  sag: { label: 'Sag', range: RANGES.strength },
} satisfies Record<OwnSetting, { label: string; range: Range }>;

/** Settings that only some kinds of fixtures have. */
export function KindSettings({ fixture }: { fixture: Fixture }) {
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const { id, name, kind, dead } = fixture;
  const pieces = kind === 'tube' ? tubePieces(fixture).length : 0;
  return (
    <>
      {Object.entries(KINDS[kind].rows).map(([key, initial]) => {
        const { label, range } = ROWS[key as OwnSetting];
        return (
          <NumberRow
            key={key}
            label={label}
            value={fixture[key as OwnSetting]}
            range={range}
            initial={initial}
            onChange={(value) =>
              change(
                `fixture ${id} ${key}`,
                setFixture(`${name}: ${label.toLowerCase()}`, id, { [key]: value }),
              )
            }
          />
        );
      })}
      {pieces > 1 && (
        <div className={classes.pieces} role="group" aria-label="Pieces that burn">
          {Array.from({ length: pieces }, (_, piece) => (
            <UnstyledButton
              key={piece}
              aria-label={`Piece ${piece + 1} burns`}
              aria-pressed={!dead.includes(piece)}
              onClick={() =>
                run(
                  setFixture(`${name}: piece ${piece + 1}`, id, {
                    dead: dead.includes(piece) ? dead.filter((other) => other !== piece) : [...dead, piece],
                  }),
                )
              }
            />
          ))}
        </div>
      )}
    </>
  );
}
