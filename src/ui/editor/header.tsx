'use client';

import { ActionIcon, Button, Tooltip } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { renameScene } from '@/core/scene/commands';
import type { SaveState } from '@/state/saver';
import { NameField } from '../controls/name-field';
import { HourLine } from '../hour/hour-line';
import { useScene, useView } from './editor-context';
import { Logo } from './logo';
import classes from './editor.module.css';

const SAVE_TEXT: Record<SaveState, string> = {
  saved: 'saved',
  saving: 'saving …',
  waiting: 'kept here, not saved yet',
  stale: 'changed elsewhere',
  refused: 'not saved',
};

/** Top of the editor: the scene's name, the hour line, the proof, undo and the state of saving. */
export function Header() {
  const title = useScene(({ scene }) => scene.title);
  const run = useScene((state) => state.run);
  const undone = useScene((state) => state.history.undone.at(-1)?.label);
  const done = useScene((state) => state.history.done.at(-1)?.label);
  const gesture = useScene((state) => state.gesture);
  const undo = useScene((state) => state.undo);
  const redo = useScene((state) => state.redo);
  const saveState = useScene((state) => state.saveState);
  const saveReason = useScene((state) => state.saveReason);
  return (
    <header className={classes.header}>
      <div className={classes.home}>
        <Logo />
        <NameField
          label="Scene name"
          className={classes.sceneName}
          value={title}
          onCommit={(next) => run(renameScene(next))}
        />
      </div>
      <HourLine />
      <div className={classes.right}>
        <DayButton />
        <Tooltip label={done ? `Undo: ${done}` : 'Nothing to undo'}>
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label="Undo"
            disabled={!done && !gesture}
            onClick={undo}
          >
            <IconArrowBackUp size={17} />
          </ActionIcon>
        </Tooltip>
        <Tooltip label={undone ? `Redo: ${undone}` : 'Nothing to redo'}>
          <ActionIcon variant="subtle" color="gray" aria-label="Redo" disabled={!undone} onClick={redo}>
            <IconArrowForwardUp size={17} />
          </ActionIcon>
        </Tooltip>
        <span className={classes.save} role="status" data-state={saveState} title={saveReason}>
          {SAVE_TEXT[saveState]}
        </span>
      </div>
    </header>
  );
}

/** Shows the day for as long as it is held. */
function DayButton() {
  const day = useView((view) => view.day);
  const setView = useView((view) => view.set);
  const show = (shown: boolean) => () => setView({ day: shown });
  return (
    <Tooltip label="Hold to see the day; or hold the D key">
      <Button
        size="compact-sm"
        variant={day ? 'filled' : 'default'}
        aria-pressed={day}
        onPointerDown={show(true)}
        onPointerUp={show(false)}
        onPointerLeave={show(false)}
        onKeyDown={(event) => {
          if (event.key === ' ' || event.key === 'Enter') setView({ day: true });
        }}
        onKeyUp={show(false)}
        onBlur={show(false)}
      >
        Day
      </Button>
    </Tooltip>
  );
}
