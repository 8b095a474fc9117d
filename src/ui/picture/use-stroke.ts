import { useRef, type PointerEvent } from 'react';
import { pressureFromSpeed } from '@/core/matte/stroke-pressure';
import { placeOnSvg } from './place-on-svg';

/** Places nearer than this to the one before are left out, fraction of the plate's width. */
const STEP = 0.0008;

interface Stroke {
  /** A new part of a path: u, v, pressure. */
  onPart: (path: readonly number[]) => void;
  /** The whole path, once the pointer is let go. */
  onEnd: (path: number[]) => void;
  onGiveUp: () => void;
}

const rounded = (value: number) => Math.round(value * 1e5) / 1e5;

/** Pointer handlers for a stroke drawn on the picture, with a pen's pressure or, without one, a stand-in from speed. */
export function useStroke({ onPart, onEnd, onGiveUp }: Stroke) {
  const drawn = useRef<{ path: number[]; pressure: number; at: number } | null>(null);

  function take(event: PointerEvent): void {
    const now = drawn.current!;
    const moves = event.nativeEvent.getCoalescedEvents?.() ?? [];
    for (const move of moves.length > 0 ? moves : [event.nativeEvent]) {
      const { u, v } = placeOnSvg(event.currentTarget as SVGSVGElement, move);
      const { path } = now;
      const way = path.length > 0 ? Math.hypot(u - path[path.length - 3], v - path[path.length - 2]) : 0;
      if (path.length > 0 && way < STEP) continue;
      now.pressure =
        event.pointerType === 'pen'
          ? move.pressure
          : pressureFromSpeed(now.pressure, way, (move.timeStamp - now.at) / 1000);
      now.at = move.timeStamp;
      path.push(rounded(u), rounded(v), rounded(now.pressure));
    }
    onPart(now.path);
  }

  return {
    onPointerDown(event: PointerEvent) {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      const pressure = event.pointerType === 'pen' ? event.pressure : 0.8;
      drawn.current = { path: [], pressure, at: event.timeStamp };
      take(event);
    },
    onPointerMove(event: PointerEvent) {
      if (drawn.current) take(event);
    },
    onPointerUp() {
      const now = drawn.current;
      drawn.current = null;
      if (now) onEnd(now.path);
    },
    onPointerCancel() {
      drawn.current = null;
      onGiveUp();
    },
  };
}
