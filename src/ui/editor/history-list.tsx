'use client';

import { ActionIcon, Popover, ScrollArea, UnstyledButton } from '@mantine/core';
import { IconHistory, IconX } from '@tabler/icons-react';
import { useCallback, useState } from 'react';
import { returnToMoment } from '@/core/scene/commands';
import type { Moment } from '@/state/session/answers';
import { api } from '@/state/session/api';
import { NameToKeep } from '../controls/name-to-keep';
import { useKeptList } from '../controls/use-kept-list';
import { MadeImage } from '../controls/made-image';
import { useScene, useSession } from './editor-context';
import classes from './editor.module.css';

/** What was done, in order; a click goes back, or forward again, to that moment. Nothing is lost by going. */
export function HistoryList() {
  const [open, setOpen] = useState(false);
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-end" width={270} trapFocus withinPortal>
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
      <Popover.Dropdown p={6}>
        {open && (
          <>
            <NamedMoments />
            <Steps />
          </>
        )}
      </Popover.Dropdown>
    </Popover>
  );
}

function Steps() {
  const { done, undone } = useScene((state) => state.history);
  const id = useScene((state) => state.id);
  const saved = useScene((state) => state.saveState === 'saved');
  const goTo = useScene((state) => state.goTo);
  const steps = [...done, ...undone.toReversed()];
  const step = (moment: number, label: string, entryId?: string) => (
    <li key={moment}>
      <UnstyledButton
        className={classes.moment}
        aria-current={moment === done.length ? 'step' : undefined}
        data-undone={moment > done.length || undefined}
        onClick={() => goTo(moment)}
      >
        <span className={classes.momentPicture}>
          {entryId && saved && <MadeImage src={api.entryThumbnail(id, entryId)} alt="" />}
        </span>
        {label}
      </UnstyledButton>
    </li>
  );
  return (
    <ScrollArea.Autosize mah={400} viewportProps={{ tabIndex: -1 }}>
      <ol className={classes.moments} aria-label="History">
        {step(0, 'As opened')}
        {steps.map(({ label, id: entryId }, i) => step(i + 1, label, entryId))}
      </ol>
    </ScrollArea.Autosize>
  );
}

/** Moments with a name: kept for good, whatever is undone later. */
function NamedMoments() {
  const session = useSession();
  const id = useScene((state) => state.id);
  const run = useScene((state) => state.run);
  const load = useCallback(() => api.moments(id), [id]);
  const { items: moments, fault, attempt } = useKeptList(load);
  const goBack = (moment: Moment) =>
    attempt(async () => run(returnToMoment(moment.name, await api.momentScene(id, moment.id))));
  return (
    <>
      <NameToKeep
        label="Name of this moment"
        placeholder="Name this moment"
        className={classes.nameMoment}
        onKeep={(name) => attempt(() => api.nameMoment(id, name, session.scene.getState().scene))}
      />
      {fault && <p role="alert">{fault}</p>}
      {moments.length > 0 && (
        <ul className={classes.named} aria-label="Named moments">
          {moments.map((moment) => (
            <li key={moment.id}>
              <UnstyledButton className={classes.moment} onClick={() => void goBack(moment)}>
                {moment.name}
              </UnstyledButton>
              <ActionIcon
                size={18}
                variant="subtle"
                color="gray"
                aria-label={`Forget ${moment.name}`}
                onClick={() => void attempt(() => api.forgetMoment(id, moment.id))}
              >
                <IconX size={12} />
              </ActionIcon>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
