'use client';

import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useStore } from 'zustand';
import { gripShare } from '@/core/picture/grip';
import { setCircuit } from '@/core/scene/commands';
import { PLAIN_GRIP } from '@/core/scene/new-scene';
import { RANGES } from '@/core/fields/ranges';
import type { Circuit, Grip } from '@/core/scene/schema';
import { NumberRow } from '../controls/number-row';
import { useGesture } from '../controls/use-gesture';
import { useScene, useSession } from '../editor/editor-context';
import classes from './grip-editor.module.css';

/** The drawing's units; shares run up to 2. */
const WIDE = 100;
const HIGH = 50;
const NUDGE = { tone: 0.01, share: 0.02 };

const ENDS = [
  { end: 'dark', tone: 'dark', share: 'darkShare', label: 'Dark parts' },
  { end: 'bright', tone: 'bright', share: 'brightShare', label: 'Bright parts' },
] as const;

const hold = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
const round = (value: number) => Math.round(1000 * value) / 1000;

/** How dark and bright parts take a circuit's light, over the tones on which it lands. */
export function GripEditor({ circuit }: { circuit: Circuit }) {
  const change = useScene((state) => state.change);
  const gesture = useGesture();
  const tones = useTonesBeneath(circuit.id);
  const field = useRef<SVGSVGElement>(null);
  const { grip, id, name } = circuit;
  const set = (values: Partial<Grip>) =>
    change(`grip ${id}`, setCircuit(`${name}: grip`, id, { grip: { ...grip, ...values } }));
  const put = (end: (typeof ENDS)[number], tone: number, share: number) => {
    const [least, most] = end.end === 'dark' ? [0, grip.bright] : [grip.dark, 1];
    set({ [end.tone]: round(hold(tone, least, most)), [end.share]: round(hold(share, 0, 2)) });
  };

  function drag(event: PointerEvent, end: (typeof ENDS)[number]): void {
    if (event.buttons !== 1) return;
    const box = field.current!.getBoundingClientRect();
    put(end, (event.clientX - box.left) / box.width, 2 * (1 - (event.clientY - box.top) / box.height));
  }

  function onKeyDown(event: KeyboardEvent, end: (typeof ENDS)[number]): void {
    const times = event.shiftKey ? 5 : 1;
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-NUDGE.tone, 0],
      ArrowRight: [NUDGE.tone, 0],
      ArrowUp: [0, NUDGE.share],
      ArrowDown: [0, -NUDGE.share],
    };
    const step = by[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    put(end, grip[end.tone] + times * step[0], grip[end.share] + times * step[1]);
  }

  const y = (share: number) => HIGH * (1 - share / 2);
  const curve = Array.from({ length: WIDE + 1 }, (_, x) => `${x} ${y(gripShare(grip, x / WIDE))}`).join('L');
  const most = Math.max(1e-6, ...(tones ?? [0]));
  const area = [...(tones ?? [])].map((share, k) => {
    const x = ((k + 0.5) / tones!.length) * WIDE;
    return `${x} ${HIGH * (1 - 0.92 * (share / most))}`;
  });
  const row = (key: keyof Grip, label: string) => (
    <NumberRow
      label={label}
      value={grip[key]}
      range={key.endsWith('Share') ? RANGES.gripShare : RANGES.tone}
      initial={PLAIN_GRIP[key]}
      onChange={(value) => set({ [key]: value })}
    />
  );
  return (
    <>
      <svg
        ref={field}
        className={classes.field}
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        preserveAspectRatio="none"
        role="group"
        aria-label={`Grip of ${name}`}
        data-testid="grip"
      >
        {area.length > 0 && (
          <path className={classes.tones} d={`M0 ${HIGH}L${area.join('L')}L${WIDE} ${HIGH}Z`} />
        )}
        <path className={classes.rest} d={`M0 ${y(1)}H${WIDE}`} />
        <path className={classes.curve} d={`M${curve}`} />
        {ENDS.map((end) => (
          <g
            key={end.end}
            role="slider"
            tabIndex={0}
            aria-label={`${end.label}, grip`}
            aria-valuemin={0}
            aria-valuemax={2}
            aria-valuenow={grip[end.share]}
            aria-valuetext={`tone ${grip[end.tone].toFixed(2)} takes ${grip[end.share].toFixed(2)}`}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              gesture.hold();
            }}
            onPointerMove={(event) => drag(event, end)}
            onPointerUp={gesture.end}
            onPointerCancel={gesture.end}
            onKeyDown={(event) => onKeyDown(event, end)}
            onBlur={gesture.end}
            onDoubleClick={() => {
              set({ [end.tone]: PLAIN_GRIP[end.tone], [end.share]: PLAIN_GRIP[end.share] });
              gesture.end();
            }}
          >
            <path className={classes.grab} d={`M${WIDE * grip[end.tone]} ${y(grip[end.share])}h0`} />
            <path className={classes.point} d={`M${WIDE * grip[end.tone]} ${y(grip[end.share])}h0`} />
          </g>
        ))}
      </svg>
      {row('darkShare', 'Dark takes')}
      {row('dark', 'up to tone')}
      {row('brightShare', 'Bright takes')}
      {row('bright', 'from tone')}
    </>
  );
}

/** The tones on which a circuit's light lands; read anew when the picture has changed. */
function useTonesBeneath(circuit: string): Float32Array | undefined {
  const { readout, scene: store } = useSession();
  const read = useStore(readout, ({ beneath }) => beneath);
  const shown = useStore(readout, ({ night }) => night);
  const [tones, setTones] = useState<Float32Array>();
  useEffect(() => {
    let left = false;
    read?.(store.getState().scene, circuit).then(
      (value) => {
        if (!left) setTones(value);
      },
      () => {},
    );
    return () => {
      left = true;
    };
  }, [read, shown, store, circuit]);
  return tones;
}
