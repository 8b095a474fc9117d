import { useEffect, useRef, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';
import type { Range } from '@/core/fields/ranges';
import { useGesture } from './use-gesture';

export interface FaderOptions {
  label: string;
  value: number;
  range: Range;
  /** What a double click, Delete or Backspace sets. */
  initial: number;
  axis: 'up' | 'right';
  /** What a screen reader says for the value. */
  text: string;
  onChange: (value: number) => void;
  /** Where a value sits on the track, 0 to 1, and back; straight unless given. */
  scale?: { toTrack: (value: number) => number; toValue: (track: number) => number };
}

const COARSE = 10;

/** Rounds to the range's step and holds within it. */
export function snap(value: number, { min, max, step }: Range): number {
  const decimals = Math.max(0, Math.ceil(-Math.log10(step)));
  return Math.min(max, Math.max(min, Number((Math.round(value / step) * step).toFixed(decimals))));
}

const clampUnit = (share: number) => Math.min(1, Math.max(0, share));

/** The value that a key asks for; undefined for a key that asks for none. */
function keyedValue(
  { key, shiftKey, ctrlKey, metaKey }: KeyboardEvent,
  { value, range, initial }: FaderOptions,
): number | undefined {
  const step = range.step * (shiftKey ? COARSE : 1);
  const to: Record<string, number> = {
    ArrowUp: value + step,
    ArrowRight: value + step,
    ArrowDown: value - step,
    ArrowLeft: value - step,
    PageUp: value + range.step * COARSE,
    PageDown: value - range.step * COARSE,
    Home: range.min,
    End: range.max,
    Delete: initial,
    Backspace: initial,
  };
  return ctrlKey || metaKey ? undefined : to[key];
}

/** Where a value sits on a track that is straight. */
const straight = ({ min, max }: Range) => ({
  toTrack: (value: number) => (value - min) / (max - min),
  toValue: (track: number) => min + track * (max - min),
});

/**
 * Behaviour of a fader: drag (Shift for fine), arrow keys (Shift for coarse), Page keys, Home and End, wheel, double
 * click to reset. Returns props for the element that is the track.
 */
export function useFader(options: FaderOptions) {
  const track = useRef<HTMLDivElement>(null);
  const gesture = useGesture();
  const { label, value, range, initial, axis, text } = options;
  const scale = options.scale ?? straight(range);
  const change = (next: number) => {
    const snapped = snap(next, range);
    if (snapped !== value) options.onChange(snapped);
  };
  const drag = useTrackDrag(track, options, scale, change);
  useTrackWheel(track, options);

  function onKeyDown(event: KeyboardEvent): void {
    const next = keyedValue(event, options);
    if (next === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    change(next);
  }

  return {
    position: clampUnit(scale.toTrack(value)),
    props: {
      ref: track,
      role: 'slider',
      tabIndex: 0,
      'aria-label': label,
      'aria-orientation': axis === 'up' ? ('vertical' as const) : ('horizontal' as const),
      'aria-valuemin': range.min,
      'aria-valuemax': range.max,
      'aria-valuenow': value,
      'aria-valuetext': text,
      ...drag,
      onKeyDown,
      onBlur: gesture.end,
      onDoubleClick: () => {
        options.onChange(initial);
        gesture.end();
      },
    },
  };
}

type Track = RefObject<HTMLDivElement | null>;

/** Dragging along a track, by the knob or from where it is pressed. */
function useTrackDrag(
  track: Track,
  { axis, value }: FaderOptions,
  scale: NonNullable<FaderOptions['scale']>,
  change: (next: number) => void,
) {
  const drag = useRef<{ track: number; at: number } | null>(null);
  const gesture = useGesture();
  const along = (event: PointerEvent) => (axis === 'right' ? event.clientX : -event.clientY);
  const trackLength = () => {
    const box = track.current!.getBoundingClientRect();
    return axis === 'right' ? box.width : box.height;
  };

  function onPointerDown(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    gesture.hold();
    const box = track.current!.getBoundingClientRect();
    const hit =
      axis === 'right' ? (event.clientX - box.left) / box.width : (box.bottom - event.clientY) / box.height;
    const onKnob = Math.abs(hit - scale.toTrack(value)) * trackLength() < 14;
    drag.current = { track: onKnob ? scale.toTrack(value) : hit, at: along(event) };
    if (!onKnob) change(scale.toValue(clampUnit(hit)));
  }

  function onPointerMove(event: PointerEvent): void {
    if (!drag.current) return;
    const step = ((along(event) - drag.current.at) / trackLength()) * (event.shiftKey ? 0.2 : 1);
    drag.current = { track: drag.current.track + step, at: along(event) };
    change(scale.toValue(clampUnit(drag.current.track)));
  }

  function onPointerUp(): void {
    if (!drag.current) return;
    drag.current = null;
    gesture.end();
  }

  return { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: onPointerUp };
}

/** Turns of the wheel over a track. */
function useTrackWheel(track: Track, options: FaderOptions): void {
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  useEffect(() => {
    const element = track.current!;
    // React's wheel handlers are passive and could not keep the page from scrolling.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const now = latest.current;
      const turn = event.deltaY === 0 ? event.deltaX : event.deltaY;
      const next = snap(
        now.value - Math.sign(turn) * now.range.step * (event.shiftKey ? COARSE : 1),
        now.range,
      );
      if (next !== now.value) now.onChange(next);
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [track]);
}
