'use client';

import { ActionIcon, Button, Menu, SegmentedControl, Tooltip } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { useStore } from 'zustand';
import { renameScene } from '@/core/scene/commands';
import { connection } from '@/state/session/connection';
import type { SaveState } from '@/state/session/saver';
import { FITTED, PROOFS, type Proof } from '../view/look';
import { NameField } from '../controls/name-field';
import { HourLine } from '../hour/hour-line';
import { useScene, useSession, useView } from './editor-context';
import { HistoryList } from './history-list';
import { Logo } from './logo';
import classes from './editor.module.css';

const SAVE_TEXT: Record<SaveState, string> = {
  saved: 'saved',
  saving: 'saving …',
  waiting: 'kept here, not saved yet',
  failing: 'not saved',
  stale: 'changed elsewhere',
  outdated: 'kept here, reload to save',
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
        <SaveStatus />
      </div>
    </header>
  );
}

const GONE = 'The server does not answer. Start it again with npm run demo; all is saved once it answers.';

/** How saving stands, and whether the server answers at all. */
function SaveStatus() {
  const { retry } = useSession();
  // A gesture under way is not saved before it ends.
  const state = useScene(({ saveState, gesture }) =>
    gesture && saveState === 'saved' ? 'saving' : saveState,
  );
  const reason = useScene((scene) => scene.saveReason);
  const isDown = useStore(connection, (now) => now.isDown);
  const gone = state === 'saved' ? 'the server does not answer' : 'kept here, the server does not answer';
  const told = isDown && state !== 'stale' && state !== 'outdated' && state !== 'refused';
  return (
    <>
      <span
        className={classes.save}
        role="status"
        data-state={told ? 'waiting' : state}
        title={told ? GONE : reason}
      >
        {told ? gone : SAVE_TEXT[state]}
      </span>
      {state === 'failing' && !told && (
        <Button size="compact-xs" variant="default" title={reason} onClick={retry}>
          Try again
        </Button>
      )}
    </>
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
