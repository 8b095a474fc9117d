'use client';

import { UnstyledButton } from '@mantine/core';
import { memo, useState, type DragEvent, type KeyboardEvent } from 'react';
import { gelColor } from '@/core/fixture/gel-color';
import { burns } from '@/core/picture/layers';
import { moveToCircuit, setCircuit } from '@/core/scene/fixture-commands';
import { moveCircuit } from '@/core/scene/many-commands';
import { RANGES } from '@/core/fields/ranges';
import type { Circuit, Scene } from '@/core/scene/schema';
import { useScene, useView } from '../editor/editor-context';
import { litCss } from './color-css';
import { StripFader } from './strip-fader';
import classes from './desk.module.css';

type LevelName = 'level' | 'lampLevel' | 'spillLevel';

interface CircuitStripProps {
  circuit: Circuit;
  /** Its place on the desk. */
  index: number;
}

/** What is dragged on the desk: circuits to another place, fixtures onto another circuit. */
const DRAGGED = { circuit: 'application/x-sundew-circuit', fixture: 'application/x-sundew-fixture' } as const;

/**
 * A circuit on the desk: its dimmer, folding open into lamp, spill, warmth and its fixtures; mute and solo under the pointer
 * and by key. Dragged by its name, or with Alt and an arrow key, it moves to another place.
 */
export const CircuitStrip = memo(function CircuitStrip({ circuit, index }: CircuitStripProps) {
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const chosen = useView((view) => view.circuit === circuit.id);
  const [open, setOpen] = useState(false);
  const [over, setOver] = useState(false);
  const { id, name, muted, solo } = circuit;

  const mute = () => run(setCircuit(muted ? `${name}: on again` : `${name}: mute`, id, { muted: !muted }));
  const toggleSolo = () => run(setCircuit(solo ? `${name}: end solo` : `${name}: solo`, id, { solo: !solo }));
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement || event.ctrlKey || event.metaKey) return;
    if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      event.stopPropagation();
      run(moveCircuit(id, index + (event.key === 'ArrowLeft' ? -1 : 1)));
    }
    if (event.key === 'm') mute();
    if (event.key === 's') toggleSolo();
  };

  function onDragOver(event: DragEvent): void {
    const { types } = event.dataTransfer;
    if (!types.includes(DRAGGED.circuit) && !types.includes(DRAGGED.fixture)) return;
    event.preventDefault();
    setOver(true);
  }
  function onDrop(event: DragEvent): void {
    setOver(false);
    const [moved, fixture] = [DRAGGED.circuit, DRAGGED.fixture].map((kind) =>
      event.dataTransfer.getData(kind),
    );
    if (moved && moved !== id) run(moveCircuit(moved, index));
    if (fixture) run(moveToCircuit(fixture, circuit));
  }

  return (
    <section
      className={classes.strip}
      aria-label={`Circuit ${name}`}
      data-chosen={chosen || undefined}
      data-open={open || undefined}
      data-over={over || undefined}
      onKeyDownCapture={onKeyDown}
      onPointerDown={() => setView({ circuit: id })}
      onDragOver={onDragOver}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <Faders circuit={circuit} open={open} />
      <div className={classes.switches}>
        <UnstyledButton aria-pressed={muted} onClick={mute} aria-label={`Mute ${name}`}>
          mute
        </UnstyledButton>
        <UnstyledButton aria-pressed={solo} onClick={toggleSolo} aria-label={`Solo ${name}`}>
          solo
        </UnstyledButton>
      </div>
      <StripName circuit={circuit} open={open} onToggle={() => setOpen(!open)} />
    </section>
  );
});

/** The dimmer of a circuit; open, lamp, spill, warmth and fixtures beside it. */
function Faders({ circuit, open }: { circuit: Circuit; open: boolean }) {
  const change = useScene((state) => state.change);
  const gel = useScene(({ scene }) => fixturesOf(scene, circuit)[0]?.gel);
  const lit = useScene(({ scene }) => burns(circuit, scene));
  const color = litCss(gel ? gelColor(gel, circuit.warmth) : [1, 1, 1]);
  const { id, name } = circuit;
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
  return (
    <div className={classes.faders}>
      {fader('level', '')}
      {open && fader('lampLevel', 'lamp level', 'lamp')}
      {open && fader('spillLevel', 'spill level', 'spill')}
      {open && (
        <StripFader
          label={`${name} warmth`}
          caption="warmth"
          value={circuit.warmth}
          range={RANGES.warmth}
          color={color}
          lit={lit}
          onChange={(warmth) => change(`circuit ${id} warmth`, setCircuit(`${name}: warmth`, id, { warmth }))}
        />
      )}
      {open && <CircuitFixtures circuit={circuit} />}
    </div>
  );
}

interface StripNameProps {
  circuit: Circuit;
  open: boolean;
  onToggle: () => void;
}

function StripName({ circuit, open, onToggle }: StripNameProps) {
  const count = useScene(({ scene }) => fixturesOf(scene, circuit).length);
  const { id, name } = circuit;
  return (
    <UnstyledButton
      className={classes.name}
      aria-expanded={open}
      aria-label={`${name}, ${count} fixtures: lamp and spill apart`}
      title="Fold open into lamp, spill, warmth and fixtures; drag it to another place"
      draggable
      onDragStart={(event: DragEvent) => event.dataTransfer.setData(DRAGGED.circuit, id)}
      onClick={onToggle}
    >
      {name} <small>{count}</small>
    </UnstyledButton>
  );
}

const fixturesOf = (scene: Pick<Scene, 'fixtures'>, circuit: Circuit) =>
  scene.fixtures.filter((fixture) => fixture.circuit === circuit.id);

/** The fixtures of a circuit: chosen by a click, dragged onto another circuit. */
function CircuitFixtures({ circuit }: { circuit: Circuit }) {
  const fixtures = useScene(({ scene }) => scene.fixtures);
  const chosen = useView((view) => view.chosen);
  const setView = useView((view) => view.set);
  return (
    <div className={classes.fixtures} role="group" aria-label={`Fixtures of ${circuit.name}`}>
      {fixturesOf({ fixtures }, circuit).map(({ id, name }) => (
        <UnstyledButton
          key={id}
          aria-pressed={id === chosen}
          draggable
          onDragStart={(event: DragEvent) => {
            event.stopPropagation();
            event.dataTransfer.setData(DRAGGED.fixture, id);
          }}
          onClick={() => setView({ chosen: id, step: 'fixtures' })}
        >
          {name}
        </UnstyledButton>
      ))}
    </div>
  );
}
