'use client';

import { UnstyledButton } from '@mantine/core';
import type { FixtureOf } from '@/core/fixture/fixture-schema';
import { KINDS } from '@/core/fixture/kinds';
import { ownNumbers } from '@/core/fixture/own-settings';
import { tubePieces } from '@/core/fixture/tube-pieces';
import { setFixture } from '@/core/scene/commands';
import type { Fixture } from '@/core/scene/schema';
import { NumberRow } from '../controls/number-row';
import { useScene } from '../editor/editor-context';
import classes from './kind-settings.module.css';

/** Settings that only some kinds of fixtures have. */
export function KindSettings({ fixture }: { fixture: Fixture }) {
  const change = useScene((state) => state.change);
  const { id, name, kind } = fixture;
  const values = fixture as unknown as Record<string, number>;
  return (
    <>
      {ownNumbers(KINDS[kind].own).map(
        ([key, { label, range, start, needs }]) =>
          (needs === undefined || values[needs] > 0) && (
            <NumberRow
              key={key}
              label={label}
              value={values[key]}
              range={range}
              initial={start}
              onChange={(value) =>
                change(
                  `fixture ${id} ${key}`,
                  setFixture(`${name}: ${label.toLowerCase()}`, id, { [key]: value }),
                )
              }
            />
          ),
      )}
      {fixture.kind === 'tube' && <Pieces tube={fixture} />}
    </>
  );
}

/** Which pieces of a tube burn. */
function Pieces({ tube }: { tube: FixtureOf<'tube'> }) {
  const run = useScene((state) => state.run);
  const { id, name, dead } = tube;
  const pieces = tubePieces(tube).length;
  return (
    <>
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
