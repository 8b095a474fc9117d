import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
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

/**
 * Behaviour of a fader: drag (Shift for fine), arrow keys (Shift for coarse), Page keys, Home and End, wheel, double
 * click to reset. Returns props for the element that is the track.
 */
export function useFader(options: FaderOptions) {
  const track = useRef<HTMLDivElement>(null);
  const drag = useRef<{ track: number; at: number } | null>(null);
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  const gesture = useGesture();
  const { label, value, range, initial, axis, text } = options;
  const straight = {
    toTrack: (v: number) => (v - range.min) / (range.max - range.min),
    toValue: (t: number) => range.min + t * (range.max - range.min),
  };
  const scale = options.scale ?? straight;

  const change = (next: number) => {
    const snapped = snap(next, range);
    if (snapped !== value) options.onChange(snapped);
  };

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
    if (!onKnob) change(scale.toValue(Math.min(1, Math.max(0, hit))));
  }

  function onPointerMove(event: PointerEvent): void {
    if (!drag.current) return;
    const step = ((along(event) - drag.current.at) / trackLength()) * (event.shiftKey ? 0.2 : 1);
    drag.current = { track: drag.current.track + step, at: along(event) };
    change(scale.toValue(Math.min(1, Math.max(0, drag.current.track))));
  }

  function onPointerUp(): void {
    if (!drag.current) return;
    drag.current = null;
    gesture.end();
  }

  function onKeyDown(event: KeyboardEvent): void {
    const step = range.step * (event.shiftKey ? COARSE : 1);
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
    if (!(event.key in to) || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    change(to[event.key]);
  }

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
  }, []);

  return {
    position: Math.min(1, Math.max(0, scale.toTrack(value))),
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
      onPointerDown,
      onPointerMove,
      onPointerUp,
      onPointerCancel: onPointerUp,
      onKeyDown,
      onBlur: gesture.end,
      onDoubleClick: () => {
        options.onChange(initial);
        gesture.end();
      },
    },
  };
}
