'use client';

import { Button } from '@mantine/core';
import classes from '../../worksheet/worksheet.module.css';

interface ReadyMadeProps<Name extends string, Values extends Record<string, number>> {
  /** What they are, for those who hear it. */
  label: string;
  /** What each is called, in their order. */
  names: Record<Name, string>;
  sets: Record<Name, Values>;
  /** What is set now. */
  now: Record<keyof Values, number>;
  /** With what is written in the history for it. */
  onTake: (label: string, values: Values) => void;
}

/** Ready-made sets of numbers; the one that is set is marked. */
export function ReadyMade<Name extends string, Values extends Record<string, number>>({
  label,
  names,
  sets,
  now,
  onTake,
}: ReadyMadeProps<Name, Values>) {
  return (
    <div className={classes.actions} role="group" aria-label={label}>
      {(Object.keys(names) as Name[]).map((name) => {
        const values = sets[name];
        const isSet = Object.keys(values).every((key) => now[key] === values[key]);
        return (
          <Button
            key={name}
            size="compact-xs"
            variant={isSet ? 'filled' : 'default'}
            aria-pressed={isSet}
            onClick={() => onTake(names[name].toLowerCase(), values)}
          >
            {names[name]}
          </Button>
        );
      })}
    </div>
  );
}
