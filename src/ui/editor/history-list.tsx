'use client';

import { ActionIcon, Popover, ScrollArea, UnstyledButton } from '@mantine/core';
import { IconHistory } from '@tabler/icons-react';
import { useState } from 'react';
import { useScene } from './editor-context';
import classes from './editor.module.css';

/** What was done, in order; a click goes back, or forward again, to that moment. Nothing is lost by going. */
export function HistoryList() {
  const [open, setOpen] = useState(false);
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-end" width={240} trapFocus withinPortal>
      <Popover.Target>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label="What was done"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          <IconHistory size={17} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown p={6}>{open && <Moments />}</Popover.Dropdown>
    </Popover>
  );
}

function Moments() {
  const { done, undone } = useScene((state) => state.history);
  const goTo = useScene((state) => state.goTo);
  const labels = ['As opened', ...[...done, ...undone.toReversed()].map(({ label }) => label)];
  return (
    <ScrollArea.Autosize mah={420} viewportProps={{ tabIndex: -1 }}>
      <ol className={classes.moments} aria-label="History">
        {labels.map((label, moment) => (
          <li key={moment}>
            <UnstyledButton
              className={classes.moment}
              aria-current={moment === done.length ? 'step' : undefined}
              data-undone={moment > done.length || undefined}
              onClick={() => goTo(moment)}
            >
              {label}
            </UnstyledButton>
          </li>
        ))}
      </ol>
    </ScrollArea.Autosize>
  );
}
