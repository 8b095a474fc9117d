'use client';

import { Button, ColorInput } from '@mantine/core';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { codesFromHex, hexFromCodes } from '@/core/color/hex';
import { colorByTone, type ToneStop } from '@/core/grade/color-by-tone';
import { setNightPart } from '@/core/scene/commands';
import { RANGES } from '@/core/fields/ranges';
import { MOST_POINTS } from '@/core/grade/grade-schema';
import { NumberRow } from '../../controls/number-row';
import { useGesture } from '../../controls/use-gesture';
import { useScene } from '../../editor/editor-context';
import classes from './night.module.css';

const NUDGE = 0.01;
const clamp = (value: number) => Math.min(1, Math.max(0, Math.round(200 * value) / 200));
const css = (color: ToneStop['color']) => hexFromCodes(color);

type Stop = { at: number; color: [number, number, number] };

/** Which colour which tone takes, dark at the left. A click adds a stop; the chosen one is coloured, moved, taken away. */
export function ToneStrip() {
  const stops = useScene(({ scene }) => scene.night.byTone.stops);
  const change = useScene((state) => state.change);
  const gesture = useGesture();
  const bar = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState(0);
  const index = Math.min(chosen, stops.length - 1);
  const set = (next: Stop[]) =>
    change('night strip', setNightPart('Colour by tone', 'byTone', { stops: next }));
  const setStop = (at: number, values: Partial<Stop>) =>
    set(stops.map((stop, i) => (i === at ? { ...stop, ...values } : stop)));
  const place = (event: PointerEvent) => {
    const box = bar.current!.getBoundingClientRect();
    return clamp((event.clientX - box.left) / box.width);
  };
  const removeStop = (at: number) => {
    if (stops.length > 1) set(stops.filter((_, i) => i !== at));
  };

  function add(event: PointerEvent): void {
    if (event.button !== 0 || stops.length >= MOST_POINTS) return;
    const at = place(event);
    const [r, g, b] = colorByTone(stops)(at);
    set([...stops, { at, color: [r, g, b] }]);
    setChosen(stops.length);
    gesture.end();
  }

  return (
    <>
      <div className={classes.strip} role="group" aria-label="Colours from dark to light">
        <div ref={bar} data-testid="tone-strip" style={{ background: ramp(stops) }} onPointerDown={add} />
        {stops.map(({ at, color }, i) => (
          <StopHandle
            key={i}
            label={`Stop ${i + 1}`}
            chosen={i === index}
            stop={{ at, color }}
            placeOf={place}
            onChoose={() => setChosen(i)}
            onMove={(to) => setStop(i, { at: to })}
            onRemove={() => removeStop(i)}
          />
        ))}
      </div>
      <ChosenStop
        stop={stops[index]}
        last={stops.length === 1}
        onChange={(values) => setStop(index, values)}
        onEnd={gesture.end}
        onRemove={() => removeStop(index)}
      />
    </>
  );
}

interface StopHandleProps {
  label: string;
  chosen: boolean;
  stop: Readonly<Stop>;
  /** The tone under the pointer. */
  placeOf: (event: PointerEvent) => number;
  onChoose: () => void;
  onMove: (to: number) => void;
  onRemove: () => void;
}

/** A stop on the strip, to be dragged, or stepped by keys. */
function StopHandle({ label, chosen, stop, placeOf, onChoose, onMove, onRemove }: StopHandleProps) {
  const gesture = useGesture();
  const dragging = useRef(false);
  const { at, color } = stop;

  function grab(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    onChoose();
    dragging.current = true;
    gesture.hold();
  }

  function letGo(): void {
    dragging.current = false;
    gesture.end();
  }

  function onKeyDown(event: KeyboardEvent): void {
    const step = NUDGE * (event.shiftKey ? 10 : 1);
    if (event.key === 'ArrowLeft') onMove(clamp(at - step));
    else if (event.key === 'ArrowRight') onMove(clamp(at + step));
    else if (event.key === 'Delete' || event.key === 'Backspace') onRemove();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  return (
    <span
      className={classes.stop}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={1}
      aria-valuenow={at}
      data-chosen={chosen || undefined}
      style={{ left: `${100 * at}%`, background: css(color) }}
      onFocus={onChoose}
      onPointerDown={grab}
      onPointerMove={(event) => dragging.current && onMove(placeOf(event))}
      onPointerUp={letGo}
      onPointerCancel={letGo}
      onKeyDown={onKeyDown}
      onBlur={gesture.end}
    />
  );
}

/** Stops as a gradient. */
function ramp(stops: readonly Stop[]): string {
  const sorted = [...stops].sort((a, b) => a.at - b.at);
  const all = sorted.length === 1 ? [...sorted, { ...sorted[0], at: 1 }] : sorted;
  return `linear-gradient(90deg, ${all.map(({ at, color }) => `${css(color)} ${100 * at}%`).join(', ')})`;
}

interface ChosenStopProps {
  stop: Stop;
  /** Whether it is the only one. */
  last: boolean;
  onChange: (values: Partial<Stop>) => void;
  onEnd: () => void;
  onRemove: () => void;
}

function ChosenStop({ stop, last, onChange, onEnd, onRemove }: ChosenStopProps) {
  return (
    <>
      <NumberRow
        label="Tone"
        value={stop.at}
        range={RANGES.tone}
        initial={stop.at}
        onChange={(at) => onChange({ at })}
      />
      <div className={classes.line2}>
        <ColorInput
          size="xs"
          aria-label="Colour of the stop"
          value={css(stop.color)}
          onChange={(hex) => {
            const color = codesFromHex(hex);
            if (color) onChange({ color });
          }}
          onChangeEnd={onEnd}
        />
        <Button size="compact-xs" variant="default" disabled={last} onClick={onRemove}>
          Remove
        </Button>
      </div>
    </>
  );
}
