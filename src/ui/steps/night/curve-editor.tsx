'use client';

import { clamp } from '@/core/plane/clamp';
import { useRef, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';
import { monotoneCurve, type CurvePoint } from '@/core/grade/monotone-curve';
import { PLAIN_GRADE } from '@/core/night/starting-night';
import { setNightPart } from '@/core/scene/commands';
import { MOST_POINTS, POINT_GAP } from '@/core/grade/grade-schema';
import { useGesture } from '../../controls/use-gesture';
import { useScene } from '../../editor/editor-context';
import classes from './night.module.css';

/** The drawing is this many units each way; y runs up. */
const SIDE = 100;
const STEPS = 64;
const NUDGE = 0.01;
/** A point that is dragged this far over the edge goes away. */
const AWAY = 0.25;

const round = (value: number) => Math.round(1000 * value) / 1000;

/** Points with one of them moved between its neighbours. */
const moved = (from: readonly CurvePoint[], index: number, { x, y }: CurvePoint) => {
  const low = index > 0 ? from[index - 1].x + POINT_GAP : 0;
  const high = index < from.length - 1 ? from[index + 1].x - POINT_GAP : 1;
  return from.map((point, i) =>
    i === index ? { x: round(clamp(x, low, high)), y: round(clamp(y, 0, 1)) } : point,
  );
};

/** Points without one of them. */
const without = (from: readonly CurvePoint[], index: number) => from.filter((_, i) => i !== index);

/** Points after a key on one of them; undefined for a key that does nothing. */
function stepped(
  { key, shiftKey }: KeyboardEvent,
  points: readonly CurvePoint[],
  index: number,
): CurvePoint[] | undefined {
  const step = NUDGE * (shiftKey ? 5 : 1);
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, step],
    ArrowDown: [0, -step],
  };
  const point = points[index];
  if (by[key]) return moved(points, index, { x: point.x + by[key][0], y: point.y + by[key][1] });
  if ((key === 'Delete' || key === 'Backspace') && points.length > 2) return without(points, index);
  return undefined;
}

/** The curve through points, as a path. */
function curvePath(points: readonly CurvePoint[]): string {
  const curve = monotoneCurve(points);
  return Array.from({ length: STEPS + 1 }, (_, i) => i / STEPS)
    .map((x, i) => `${i ? 'L' : 'M'}${SIDE * x} ${SIDE * (1 - curve(x))}`)
    .join('');
}

/** Where a point goes in among points, and those with it; undefined where another one is too near. */
function withPoint(
  points: readonly CurvePoint[],
  { x, y }: CurvePoint,
): { index: number; points: CurvePoint[] } | undefined {
  const next = points.findIndex((point) => point.x > x);
  const index = next < 0 ? points.length : next;
  const near = [points[index - 1], points[index]].some(
    (point) => point && Math.abs(point.x - x) < 4 * POINT_GAP,
  );
  if (near) return undefined;
  const fresh = { x: round(clamp(x, 0, 1)), y: round(clamp(y, 0, 1)) };
  return { index, points: [...points.slice(0, index), fresh, ...points.slice(index)] };
}

/** Dragging a curve's points: `press` adds one where there is none, and `grab` takes hold of one. */
function useCurveDrag(field: RefObject<SVGSVGElement | null>, points: readonly CurvePoint[], set: SetPoints) {
  const gesture = useGesture();
  const dragged = useRef<{ index: number; points: readonly CurvePoint[] } | null>(null);

  const place = (event: PointerEvent): CurvePoint => {
    const box = field.current!.getBoundingClientRect();
    return { x: (event.clientX - box.left) / box.width, y: 1 - (event.clientY - box.top) / box.height };
  };

  function grab(event: PointerEvent, index: number, from: readonly CurvePoint[]): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    field.current!.setPointerCapture(event.pointerId);
    gesture.hold();
    dragged.current = { index, points: from };
  }

  function press(event: PointerEvent): void {
    if (event.button !== 0 || points.length >= MOST_POINTS) return;
    const added = withPoint(points, place(event));
    if (!added) return;
    grab(event, added.index, added.points);
    set(added.points);
  }

  function drag(event: PointerEvent): void {
    const now = dragged.current;
    if (!now) return;
    const at = place(event);
    const out = Math.max(-at.x, at.x - 1, -at.y, at.y - 1) > AWAY;
    set(out && now.points.length > 2 ? without(now.points, now.index) : moved(now.points, now.index, at));
  }

  function end(): void {
    if (!dragged.current) return;
    dragged.current = null;
    gesture.end();
  }

  return { press, grab, drag, end };
}

type SetPoints = (points: readonly CurvePoint[]) => void;

/** The tone curve over the tones of the picture: a click adds a point, a drag out of the field takes one away. */
export function CurveEditor() {
  const points = useScene(({ scene }) => scene.night.shape.points);
  const change = useScene((state) => state.change);
  const gesture = useGesture();
  const field = useRef<SVGSVGElement>(null);
  const set: SetPoints = (next) =>
    change('night curve', setNightPart('Curve', 'shape', { points: [...next] }));
  const { press, grab, drag, end } = useCurveDrag(field, points, set);

  function onKeyDown(event: KeyboardEvent, index: number): void {
    const next = stepped(event, points, index);
    if (!next) return;
    set(next);
    event.preventDefault();
    event.stopPropagation();
  }

  return (
    <svg
      ref={field}
      className={classes.curve}
      viewBox={`0 0 ${SIDE} ${SIDE}`}
      preserveAspectRatio="none"
      role="group"
      aria-label="Tone curve"
      onPointerDown={press}
      onPointerMove={drag}
      onPointerUp={end}
      onPointerCancel={end}
      onDoubleClick={() => {
        set(PLAIN_GRADE.shape.points);
        gesture.end();
      }}
    >
      <path className={classes.rest} d={`M0 ${SIDE}L${SIDE} 0`} />
      <path className={classes.line} d={curvePath(points)} />
      {points.map(({ x, y }, index) => (
        <g
          key={index}
          role="slider"
          tabIndex={0}
          aria-label={`Curve point ${index + 1}`}
          aria-valuemin={0}
          aria-valuemax={1}
          aria-valuenow={y}
          aria-valuetext={`${x.toFixed(2)} becomes ${y.toFixed(2)}`}
          onPointerDown={(event) => grab(event, index, points)}
          onKeyDown={(event) => onKeyDown(event, index)}
          onBlur={gesture.end}
        >
          <path className={classes.grab} d={`M${SIDE * x} ${SIDE * (1 - y)}h0`} />
          <path className={classes.point} d={`M${SIDE * x} ${SIDE * (1 - y)}h0`} />
        </g>
      ))}
    </svg>
  );
}
