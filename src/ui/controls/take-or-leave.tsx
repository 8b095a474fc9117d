'use client';

import { ActionIcon } from '@mantine/core';
import { IconCheck, IconX } from '@tabler/icons-react';
import classes from './take-or-leave.module.css';

interface TakeOrLeaveProps {
  /** What was found, as it reads in a sentence. */
  label: string;
  onTake: () => void;
  onLeave: () => void;
}

/** Something that was guessed or found, in a list: taken or left. */
export function TakeOrLeave({ label, onTake, onLeave }: TakeOrLeaveProps) {
  return (
    <li className={classes.item}>
      {label}
      <ActionIcon size={20} variant="subtle" color="gray" aria-label={`Take ${label}`} onClick={onTake}>
        <IconCheck size={13} />
      </ActionIcon>
      <ActionIcon size={20} variant="subtle" color="gray" aria-label={`Leave ${label}`} onClick={onLeave}>
        <IconX size={13} />
      </ActionIcon>
    </li>
  );
}
