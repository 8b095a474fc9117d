'use client';

import { ActionIcon, Button, Menu, SegmentedControl, Tooltip } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { renameScene } from '@/core/scene/commands';
import type { SaveState } from '@/state/saver';
import { FITTED, PROOFS, type Proof } from '@/state/view-store';
import { NameField } from '../controls/name-field';
import { HourLine } from '../hour/hour-line';
import { useScene, useView } from './editor-context';
import { HistoryList } from './history-list';
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
        <ProofChoice />
        <DayButton />
        <ZoomChoice />
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
        <HistoryList />
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

const PROOF_TEXT: Record<Proof, string> = { night: 'Night', wipe: 'Wipe', beside: 'Beside' };

/** The night alone, wiped over the day, or beside it. */
function ProofChoice() {
  const proof = useView((view) => view.proof);
  const setView = useView((view) => view.set);
  return (
    <SegmentedControl
      aria-label="Proof"
      size="xs"
      value={proof}
      data={PROOFS.map((value) => ({ value, label: PROOF_TEXT[value] }))}
      onChange={(next) => setView({ proof: next })}
    />
  );
}

/** How close the picture is looked at. */
function ZoomChoice() {
  const look = useView((view) => view.look);
  const { zoom } = look;
  const setView = useView((view) => view.set);
  const shown = zoom === 'fit' ? 'Fit' : `${Math.round(100 * zoom)} %`;
  return (
    <Menu position="bottom-end" width={120}>
      <Menu.Target>
        <Button size="compact-sm" variant="subtle" color="gray" aria-label={`Zoom: ${shown}`}>
          {shown}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => setView({ look: FITTED })}>Fit</Menu.Item>
        {[1, 2, 3].map((factor) => (
          <Menu.Item key={factor} onClick={() => setView({ look: { ...look, zoom: factor } })}>
            {100 * factor} %
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
