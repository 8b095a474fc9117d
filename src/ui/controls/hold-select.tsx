'use client';

import { NativeSelect } from '@mantine/core';
import { useScene } from '../editor/editor-context';
import classes from '../worksheet/worksheet.module.css';

/** A matte inside or outside of which alone something is. */
export interface Hold {
  matte: string;
  outside: boolean;
}

const FREE = '';

interface HoldSelectProps {
  /** What stands before the choice. */
  caption: string;
  label: string;
  /** What is chosen where no matte holds it. */
  free: string;
  hold: Hold | undefined;
  onChange: (hold: Hold | undefined) => void;
}

/** Inside or outside of which matte something is kept; nothing to choose while there is no matte. */
export function HoldSelect({ caption, label, free, hold, onChange }: HoldSelectProps) {
  const mattes = useScene(({ scene }) => scene.mattes);
  if (mattes.length === 0) return null;
  function choose(value: string): void {
    const [where, matte] = value.split(' ');
    onChange(value === FREE ? undefined : { matte, outside: where === 'outside' });
  }
  return (
    <div className={classes.pair}>
      <span>{caption}</span>
      <NativeSelect
        size="xs"
        aria-label={label}
        value={hold ? `${hold.outside ? 'outside' : 'inside'} ${hold.matte}` : FREE}
        data={[
          { value: FREE, label: free },
          ...mattes.flatMap(({ id, name }) => [
            { value: `inside ${id}`, label: `only inside ${name}` },
            { value: `outside ${id}`, label: `only outside ${name}` },
          ]),
        ]}
        onChange={({ currentTarget: { value } }) => choose(value)}
      />
    </div>
  );
}
