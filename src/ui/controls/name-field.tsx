'use client';

import { TextInput } from '@mantine/core';
import { useState } from 'react';

interface NameFieldProps {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  className?: string;
}

const LONGEST = 80;

/** A name that is typed; it counts on Enter or when the field is left. An empty one is not taken. */
export function NameField({ label, value, onCommit, className }: NameFieldProps) {
  const [typed, setTyped] = useState<string>();
  const commit = () => {
    const name = typed?.trim();
    if (name && name !== value) onCommit(name);
    setTyped(undefined);
  };
  return (
    <TextInput
      aria-label={label}
      className={className}
      size="xs"
      maxLength={LONGEST}
      value={typed ?? value}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(undefined);
      }}
    />
  );
}
