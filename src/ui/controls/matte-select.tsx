'use client';

import { useScene } from '../editor/editor-context';
import { Choice } from './choice';

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
    <Choice
      caption={caption}
      label={label}
      data={[{ value: NONE, label: none }, ...mattes.map(({ id, name }) => ({ value: id, label: name }))]}
      value={value ?? NONE}
      onChange={(matte) => onChange(matte || undefined)}
    />
  );
}
