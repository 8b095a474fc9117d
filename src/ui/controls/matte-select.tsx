'use client';

import { NativeSelect } from '@mantine/core';
import { useScene } from '../editor/editor-context';
import classes from '../worksheet/worksheet.module.css';

const NONE = '';

interface MatteSelectProps {
  /** What stands before the choice. */
  caption: string;
  label: string;
  /** What is chosen where it is no matte. */
  none: string;
  /** A matte's id. */
  value: string | undefined;
  onChange: (matte: string | undefined) => void;
}

/** One of the scene's mattes, or none. */
export function MatteSelect({ caption, label, none, value, onChange }: MatteSelectProps) {
  const mattes = useScene(({ scene }) => scene.mattes);
  return (
    <div className={classes.pair}>
      <span>{caption}</span>
      <NativeSelect
        size="xs"
        aria-label={label}
        value={value ?? NONE}
        data={[{ value: NONE, label: none }, ...mattes.map(({ id, name }) => ({ value: id, label: name }))]}
        onChange={({ currentTarget }) => onChange(currentTarget.value || undefined)}
      />
    </div>
  );
}
