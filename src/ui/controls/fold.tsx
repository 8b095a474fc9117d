'use client';

import { UnstyledButton } from '@mantine/core';
import type { ReactNode } from 'react';
import classes from './fold.module.css';

interface FoldProps {
  title: string;
  /** What was decided, shown while it is folded. */
  says: string;
  open: boolean;
  onToggle: () => void;
  children: ReactNode;
}

/** A part of a step that folds to one line. */
export function Fold({ title, says, open, onToggle, children }: FoldProps) {
  return (
    <section className={classes.fold}>
      <h3>
        <UnstyledButton className={classes.head} aria-expanded={open} onClick={onToggle}>
          <span className={classes.title}>{title}</span>
          {!open && <span className={classes.says}>{says}</span>}
        </UnstyledButton>
      </h3>
      {open && <div className={classes.body}>{children}</div>}
    </section>
  );
}
