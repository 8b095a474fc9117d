'use client';

import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';

interface NameToKeepProps {
  label: string;
  placeholder: string;
  /** Keeps under a name; the field is emptied once it is kept. Says whether it was. */
  onKeep: (name: string) => Promise<boolean>;
  className?: string;
}

/** A name under which something is kept. */
export function NameToKeep({ label, placeholder, onKeep, className }: NameToKeepProps) {
  const [name, setName] = useState('');
  async function keep(): Promise<void> {
    if (name.trim() && (await onKeep(name.trim()))) setName('');
  }
  return (
    <form
      className={className}
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <TextInput
        size="xs"
        aria-label={label}
        placeholder={placeholder}
        maxLength={80}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button type="submit" size="compact-xs" variant="default" disabled={!name.trim()}>
        Keep
      </Button>
    </form>
  );
}
