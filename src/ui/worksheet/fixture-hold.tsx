'use client';

import { NativeSelect } from '@mantine/core';
import { setFixture } from '@/core/scene/commands';
import type { Fixture } from '@/core/scene/schema';
import { useScene } from '../editor/editor-context';
import classes from './worksheet.module.css';

const FREE = '';

/** What stands before a lamp: mattes that hide it or hold its spill. */
export function FixtureHold({ fixture }: { fixture: Fixture }) {
  const mattes = useScene(({ scene }) => scene.mattes);
  const run = useScene((state) => state.run);
  const { id, name, behind, only } = fixture;
  const lands = only ? `${only.outside ? 'outside' : 'inside'} ${only.matte}` : FREE;

  function setLands(value: string): void {
    const [where, matte] = value.split(' ');
    const held = value === FREE ? undefined : { matte, outside: where === 'outside' };
    run(setFixture(`${name}: where its spill lands`, id, { only: held }));
  }

  return (
    <>
      {mattes.length > 0 && (
        <>
          <div className={classes.pair}>
            <span>Behind</span>
            <NativeSelect
              size="xs"
              aria-label="What stands before the lamp"
              value={behind ?? FREE}
              data={[
                { value: FREE, label: 'nothing' },
                ...mattes.map((matte) => ({ value: matte.id, label: matte.name })),
              ]}
              onChange={({ currentTarget: { value } }) =>
                run(setFixture(`${name}: behind`, id, { behind: value === FREE ? undefined : value }))
              }
            />
          </div>
          <div className={classes.pair}>
            <span>Spill lands</span>
            <NativeSelect
              size="xs"
              aria-label="Where the spill lands"
              value={lands}
              data={[
                { value: FREE, label: 'everywhere' },
                ...mattes.flatMap((matte) => [
                  { value: `inside ${matte.id}`, label: `only inside ${matte.name}` },
                  { value: `outside ${matte.id}`, label: `only outside ${matte.name}` },
                ]),
              ]}
              onChange={({ currentTarget: { value } }) => setLands(value)}
            />
          </div>
        </>
      )}
    </>
  );
}
