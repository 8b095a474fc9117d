'use client';

import { ActionIcon, UnstyledButton } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useState, type KeyboardEvent } from 'react';
import { addCue, removeCue, renameCue, setDeskBetween } from '@/core/scene/cue-commands';
import { cueOf } from '@/core/scene/cues';
import { RANGES } from '@/core/fields/ranges';
import { MOST_CUES, type Cue } from '@/core/scene/schema';
import { freeName } from '@/state/actions/free-name';
import { NameField } from '../controls/name-field';
import { useFader } from '../controls/use-fader';
import { useScene, useSession, useView } from '../editor/editor-context';
import { BuildUp } from './build-up';
import classes from './desk.module.css';

/** Remembered states of the desk: one click goes there; the fader fades between the last two. */
export function Cues() {
  const { scene: store } = useSession();
  const cues = useScene(({ scene }) => scene.cues);
  const run = useScene((state) => state.run);
  /** The last two that were called, the newer last. */
  const [called, setCalled] = useState<string[]>([]);
  const [from, to] = called.map((id) => cues.find((cue) => cue.id === id));

  function call(cue: Cue): void {
    run(setDeskBetween(`Cue: ${cue.name}`, cue, cue, 1));
    setCalled((before) => [...before.filter((id) => id !== cue.id), cue.id].slice(-2));
  }

  function keep(): void {
    const { scene } = store.getState();
    const cue = cueOf(scene, crypto.randomUUID(), freeName('Cue', scene.cues));
    run(addCue(cue));
    setCalled((before) => [...before, cue.id].slice(-2));
  }

  return (
    <section className={classes.cues} aria-label="Cues">
      <div className={classes.cuesHead}>
        <span>Cues</span>
        <BuildUp />
        <UnstyledButton onClick={keep} disabled={cues.length >= MOST_CUES}>
          keep this
        </UnstyledButton>
      </div>
      {cues.length === 0 && <p>Set the desk, then keep it as a cue to come back to.</p>}
      <ul>
        {cues.map((cue) => (
          <CueRow key={cue.id} cue={cue} lit={cue.id === called.at(-1)} onCall={() => call(cue)} />
        ))}
      </ul>
      {from && to && from !== to && <CrossFade key={called.join()} from={from} to={to} />}
    </section>
  );
}

/** Shows a cue for as long as a pointer or a key is down on its button: to compare it with the desk as it stands. */
function useHolding(id: string) {
  const setView = useView((view) => view.set);
  const letGo = () => setView({ cueHeld: undefined });
  return {
    onPointerDown: () => setView({ cueHeld: id }),
    onPointerUp: letGo,
    onPointerLeave: letGo,
    onPointerCancel: letGo,
    onBlur: letGo,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === ' ' || event.key === 'Enter') setView({ cueHeld: id });
    },
    onKeyUp: letGo,
  };
}

interface CueRowProps {
  cue: Cue;
  /** Whether it was called last. */
  lit: boolean;
  onCall: () => void;
}

function CueRow({ cue, lit, onCall }: CueRowProps) {
  const run = useScene((state) => state.run);
  const held = useView((view) => view.cueHeld === cue.id);
  const holding = useHolding(cue.id);
  const [renaming, setRenaming] = useState(false);
  return (
    <li data-lit={lit || undefined}>
      {renaming ? (
        <NameField
          label="Cue name"
          value={cue.name}
          onCommit={(name) => {
            run(renameCue(cue.id, name));
            setRenaming(false);
          }}
        />
      ) : (
        <UnstyledButton
          onClick={onCall}
          onDoubleClick={() => setRenaming(true)}
          onKeyDown={(event) => {
            if (event.key === 'F2') setRenaming(true);
          }}
          title="Double-click or F2 to name it"
        >
          {cue.name}
        </UnstyledButton>
      )}
      <UnstyledButton
        className={classes.look}
        aria-label={`Look at ${cue.name} while held`}
        title="Held, it shows; let go, the desk is as it was"
        aria-pressed={held}
        {...holding}
      >
        look
      </UnstyledButton>
      <ActionIcon
        size={16}
        variant="transparent"
        color="gray"
        aria-label={`Remove ${cue.name}`}
        onClick={() => run(removeCue(cue.id))}
      >
        <IconX size={11} />
      </ActionIcon>
    </li>
  );
}

function CrossFade({ from, to }: { from: Cue; to: Cue }) {
  const change = useScene((state) => state.change);
  const [share, setShare] = useState(1);
  const { position, props } = useFader({
    label: `Fade from ${from.name} to ${to.name}`,
    value: share,
    range: RANGES.strength,
    initial: 1,
    axis: 'right',
    text: `${Math.round(100 * share)} % ${to.name}`,
    onChange: (next) => {
      setShare(next);
      change(`fade ${from.id} ${to.id}`, setDeskBetween(`Fade to ${to.name}`, from, to, next));
    },
  });
  return (
    <div className={classes.fade}>
      <span>{from.name}</span>
      <div className={classes.fadeTrack} {...props}>
        <i style={{ left: `${100 * position}%` }} />
      </div>
      <span>{to.name}</span>
    </div>
  );
}
