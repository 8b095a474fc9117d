'use client';

import { UnstyledButton } from '@mantine/core';
import { memo, useState, type KeyboardEvent } from 'react';
import { gelColor } from '@/core/fixture/gel-color';
import { burns } from '@/core/picture/layers';
import { setCircuit } from '@/core/scene/commands';
import type { Circuit, Scene } from '@/core/scene/schema';
import { useScene, useView } from '../editor/editor-context';
import { litCss } from './color-css';
import { StripFader } from './strip-fader';
import classes from './desk.module.css';

type LevelName = 'level' | 'lampLevel' | 'spillLevel';

/** A circuit on the desk: its dimmer, folding open into lamp and spill; mute and solo under the pointer and by key. */
export const CircuitStrip = memo(function CircuitStrip({ circuit }: { circuit: Circuit }) {
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const chosen = useView((view) => view.circuit === circuit.id);
  const [open, setOpen] = useState(false);
  const count = useScene(({ scene }) => fixturesOf(scene, circuit).length);
  const gel = useScene(({ scene }) => fixturesOf(scene, circuit)[0]?.gel);
  const lit = useScene(({ scene }) => burns(circuit, scene));
  const color = litCss(gel ? gelColor(gel) : [1, 1, 1]);
  const { id, name, muted, solo } = circuit;

  const fader = (level: LevelName, label: string, caption?: string) => (
    <StripFader
      label={`${name} ${label}`.trim()}
      caption={caption}
      value={circuit[level]}
      color={color}
      lit={lit}
      onChange={(value) =>
        change(`circuit ${id} ${level}`, setCircuit(`${name}: ${label || 'level'}`, id, { [level]: value }))
      }
    />
  );
  const mute = () => run(setCircuit(muted ? `${name}: on again` : `${name}: mute`, id, { muted: !muted }));
  const toggleSolo = () => run(setCircuit(solo ? `${name}: end solo` : `${name}: solo`, id, { solo: !solo }));
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement || event.ctrlKey || event.metaKey) return;
    if (event.key === 'm') mute();
    if (event.key === 's') toggleSolo();
  };

  return (
    <section
      className={classes.strip}
      aria-label={`Circuit ${name}`}
      data-chosen={chosen || undefined}
      data-open={open || undefined}
      onKeyDown={onKeyDown}
      onPointerDown={() => setView({ circuit: id })}
    >
      <div className={classes.faders}>
        {fader('level', '')}
        {open && fader('lampLevel', 'lamp level', 'lamp')}
        {open && fader('spillLevel', 'spill level', 'spill')}
      </div>
      <div className={classes.switches}>
        <UnstyledButton aria-pressed={muted} onClick={mute} aria-label={`Mute ${name}`}>
          mute
        </UnstyledButton>
        <UnstyledButton aria-pressed={solo} onClick={toggleSolo} aria-label={`Solo ${name}`}>
          solo
        </UnstyledButton>
      </div>
      <UnstyledButton
        className={classes.name}
        aria-expanded={open}
        aria-label={`${name}, ${count} fixtures: lamp and spill apart`}
        title="Fold open into lamp level and spill level"
        onClick={() => setOpen(!open)}
      >
        {name} <small>{count}</small>
      </UnstyledButton>
    </section>
  );
});

const fixturesOf = (scene: Scene, circuit: Circuit) =>
  scene.fixtures.filter((fixture) => fixture.circuit === circuit.id);
