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
  const dragging = useRef<number | null>(null);
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

  function grab(event: PointerEvent, at: number): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    setChosen(at);
    dragging.current = at;
    gesture.hold();
  }

  function onKeyDown(event: KeyboardEvent, at: number): void {
    const step = NUDGE * (event.shiftKey ? 10 : 1);
    if (event.key === 'ArrowLeft') setStop(at, { at: clamp(stops[at].at - step) });
    else if (event.key === 'ArrowRight') setStop(at, { at: clamp(stops[at].at + step) });
    else if (event.key === 'Delete' || event.key === 'Backspace') removeStop(at);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  return (
    <>
      <div className={classes.strip} role="group" aria-label="Colours from dark to light">
        <div ref={bar} data-testid="tone-strip" style={{ background: ramp(stops) }} onPointerDown={add} />
        {stops.map(({ at, color }, i) => (
          <span
            key={i}
            className={classes.stop}
            role="slider"
            tabIndex={0}
            aria-label={`Stop ${i + 1}`}
            aria-valuemin={0}
            aria-valuemax={1}
            aria-valuenow={at}
            data-chosen={i === index || undefined}
            style={{ left: `${100 * at}%`, background: css(color) }}
            onFocus={() => setChosen(i)}
            onPointerDown={(event) => grab(event, i)}
            onPointerMove={(event) => {
              if (dragging.current === i) setStop(i, { at: place(event) });
            }}
            onPointerUp={() => {
              dragging.current = null;
              gesture.end();
            }}
            onKeyDown={(event) => onKeyDown(event, i)}
            onBlur={gesture.end}
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
