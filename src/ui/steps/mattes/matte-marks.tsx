'use client';

import { useEffect, useRef, type RefObject } from 'react';
import { roundPoint } from '@/core/geometry/flatten-outline';
import type { OutlinePass, Pass, RampPass } from '@/core/matte/pass';
import type { OutlinePoint } from '@/core/geometry/flatten-outline';
import type { PlatePoint } from '@/core/geometry/camera';
import { setPass } from '@/core/scene/commands';
import type { Matte } from '@/core/scene/schema';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { PlaceHandle } from '../../picture/place-handle';
import { placeOnSvg } from '../../picture/place-on-svg';
import { useChosenPass } from './use-matte-gestures';
import type { Box } from '../../picture/view-geometry';
import classes from '../../picture/picture.module.css';

const SIZE = { grip: 12, knob: 4.5 };
const HANDLE_SIZE = { grip: 10, knob: 3 };
const NUDGE = { step: 0.003, coarse: 10 };

/** Outlines of more points than this show their line alone: a traced edge is moved by drawing it anew. */
const MOST_HANDLES = 250;

interface MarksProps {
  box: Box;
  /** The path of the edge brush, and an edge that is being followed. */
  trail: RefObject<SVGPathElement | null>;
}

/** The chosen pass of the chosen matte in the picture, with what can be dragged. */
export function MatteMarks({ box, trail }: MarksProps) {
  const chosen = useChosenPass();
  if (!chosen) return null;
  const { matte, pass } = chosen;
  const props = { box, matte };
  return (
    <g className={classes.surround}>
      <path ref={trail} className={classes.trail} />
      {pass.kind === 'outline' && <OutlineMarks {...props} pass={pass} trail={trail} />}
      {pass.kind === 'ramp' && <RampMarks {...props} pass={pass} />}
      {pass.kind === 'area' && (
        <Handle {...props} pass={pass} label="What it looks like" at={pass.at} moved={(at) => ({ at })} />
      )}
      {(pass.kind === 'paint' || pass.kind === 'edge') && <BrushCircle box={box} />}
    </g>
  );
}

const add = (a: PlatePoint, b: PlatePoint): PlatePoint => ({ u: a.u + b.u, v: a.v + b.v });
const less = (a: PlatePoint, b: PlatePoint): PlatePoint => ({ u: a.u - b.u, v: a.v - b.v });

/** A handle turned to lie opposite another, as long as it was. */
function opposite(to: PlatePoint, before: PlatePoint): PlatePoint {
  const length = Math.hypot(to.u, to.v);
  const share = length === 0 ? 0 : Math.hypot(before.u, before.v) / length;
  return { u: -share * to.u, v: -share * to.v };
}

function OutlineMarks({ box, matte, pass, trail }: MarksProps & { matte: Matte; pass: OutlinePass }) {
  const run = useScene((state) => state.run);
  const { points } = pass;
  useFollowedEdge(points, box, trail);
  const place = ({ u, v }: PlatePoint) => `${u * box.width} ${v * box.height}`;
  const curve = points
    .map((point, i) => {
      const next = points[(i + 1) % points.length];
      const handles = [add(point, point.out ?? { u: 0, v: 0 }), add(next, next.in ?? { u: 0, v: 0 })];
      return `C${[...handles, next].map(place).join(',')}`;
    })
    .join('');
  const replaced = (index: number, point: OutlinePoint) => ({
    points: points.map((other, i) => (i === index ? point : other)),
  });
  const turn = (index: number) => {
    const point = points[index];
    const next = roundPoint(points, index, point.in || point.out ? 0 : 1);
    run(setPass(`${matte.name}: ${next.out ? 'round' : 'corner'}`, matte.id, pass.id, replaced(index, next)));
  };
  const ends = points.flatMap((point, index) =>
    (['in', 'out'] as const).flatMap((end) =>
      point[end] ? [{ point, index, end, at: add(point, point[end]) }] : [],
    ),
  );
  const shown = points.length <= MOST_HANDLES;
  return (
    <>
      {points.length > 1 && <path className={classes.outline} d={`M${place(points[0])}${curve}Z`} />}
      {shown &&
        ends.map(({ point, at, end, index }) => (
          <line
            key={`${index} ${end}`}
            className={classes.outline}
            x1={point.u * box.width}
            y1={point.v * box.height}
            x2={at.u * box.width}
            y2={at.v * box.height}
          />
        ))}
      {shown &&
        points.map((point, index) => (
          <Handle
            key={`point ${index}`}
            box={box}
            matte={matte}
            pass={pass}
            label={`Point ${index + 1}`}
            at={point}
            moved={(to) => replaced(index, { ...point, ...to })}
            removed={{ points: points.filter((_, i) => i !== index) }}
            onTurn={() => turn(index)}
          />
        ))}
      {shown &&
        ends.map(({ point, at, end, index }) => (
          <Handle
            key={`handle ${index} ${end}`}
            small
            box={box}
            matte={matte}
            pass={pass}
            label={`Curve ${end === 'in' ? 'into' : 'out of'} point ${index + 1}`}
            at={at}
            moved={(to) => {
              const handle = less(to, point);
              const other = end === 'in' ? 'out' : 'in';
              return replaced(index, {
                ...point,
                [end]: handle,
                [other]: opposite(handle, point[other] ?? handle),
              });
            }}
          />
        ))}
    </>
  );
}

/** While an outline follows edges, shows the way from its last point to the pointer. */
function useFollowedEdge(
  points: readonly OutlinePoint[],
  box: Box,
  trail: RefObject<SVGPathElement | null>,
): void {
  const { segmenter } = useSession();
  const following = useView((view) => view.following);
  const last = points.at(-1);
  useEffect(() => {
    const path = trail.current;
    const svg = path?.ownerSVGElement;
    if (!following || !last || !path || !svg) return;
    let stopped = false;
    let asking = false;
    const ready = segmenter.traceFrom(last).catch(() => {});
    const follow = (event: PointerEvent) => {
      if (asking) return;
      asking = true;
      const to = placeOnSvg(svg, event);
      const way = event.shiftKey ? Promise.resolve([to]) : ready.then(() => segmenter.traceTo(to));
      way
        .then((found) => {
          if (stopped) return;
          const line = [last, ...found].map(({ u, v }) => `${u * box.width} ${v * box.height}`);
          path.setAttribute('d', `M${line.join('L')}`);
          path.setAttribute('stroke-width', '1.5');
        })
        .catch(() => {})
        .finally(() => {
          asking = false;
        });
    };
    svg.addEventListener('pointermove', follow);
    return () => {
      stopped = true;
      svg.removeEventListener('pointermove', follow);
      path.removeAttribute('d');
    };
  }, [following, last, box.width, box.height, segmenter, trail]);
}

function RampMarks({ box, matte, pass }: { box: Box; matte: Matte; pass: RampPass }) {
  const { from, to, shape, breadth } = pass;
  const [fx, fy] = [from.u * box.width, from.v * box.height];
  const [ax, ay] = [to.u * box.width - fx, to.v * box.height - fy];
  const length = Math.hypot(ax, ay);
  const props = { box, matte, pass };
  const side = { u: (fx - ay * breadth) / box.width, v: (fy + ax * breadth) / box.height };
  return (
    <>
      {shape === 'round' ? (
        <ellipse
          cx={fx}
          cy={fy}
          rx={length}
          ry={length * breadth}
          transform={`rotate(${(Math.atan2(ay, ax) * 180) / Math.PI} ${fx} ${fy})`}
        />
      ) : (
        <path className={classes.outline} d={`M${fx} ${fy}L${fx + ax} ${fy + ay}`} />
      )}
      {shape === 'round' && (
        <Handle
          {...props}
          small
          label="How broad"
          at={side}
          moved={(at) => {
            const across = Math.abs(-ay * (at.u * box.width - fx) + ax * (at.v * box.height - fy));
            return { breadth: Math.min(50, Math.max(0.02, across / Math.max(1, length * length))) };
          }}
        />
      )}
      <Handle
        {...props}
        label="Full from here"
        at={from}
        moved={(next) => (shape === 'round' ? { from: next, to: add(next, less(to, from)) } : { from: next })}
      />
      <Handle {...props} label="Nothing from here" at={to} moved={(next) => ({ to: next })} />
    </>
  );
}

/** How large the brush is, under the pointer. */
function BrushCircle({ box }: { box: Box }) {
  const size = useView(({ brush }) => brush.size);
  const act = useView(({ edgeAct }) => edgeAct);
  const circle = useRef<SVGCircleElement>(null);
  useEffect(() => {
    const svg = circle.current?.ownerSVGElement;
    if (!svg) return;
    const move = (event: PointerEvent) => {
      const { u, v } = placeOnSvg(svg, event);
      circle.current?.setAttribute('cx', String(u * svg.width.baseVal.value));
      circle.current?.setAttribute('cy', String(v * svg.height.baseVal.value));
      circle.current?.setAttribute('visibility', 'visible');
    };
    const hide = () => circle.current?.setAttribute('visibility', 'hidden');
    svg.addEventListener('pointermove', move);
    svg.addEventListener('pointerleave', hide);
    return () => {
      svg.removeEventListener('pointermove', move);
      svg.removeEventListener('pointerleave', hide);
    };
  }, []);
  const chosen = useChosenPass();
  const radius = chosen?.pass.kind === 'edge' && act === 'loop' ? 2 : size * box.width;
  return <circle ref={circle} className={classes.brush} r={radius} visibility="hidden" />;
}

interface HandleProps {
  label: string;
  at: PlatePoint;
  box: Box;
  matte: Matte;
  pass: Pass;
  small?: boolean;
  moved: (to: PlatePoint) => Partial<Pass>;
  /** What Delete sets. */
  removed?: Partial<Pass>;
  /** What a double click or Enter does. */
  onTurn?: () => void;
}

function Handle({ label, at, box, matte, pass, small, moved, removed, onTurn }: HandleProps) {
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const command = (values: Partial<Pass>) =>
    setPass(`${matte.name}: ${label.toLowerCase()}`, matte.id, pass.id, values);
  return (
    <PlaceHandle
      label={label}
      x={at.u * box.width}
      y={at.v * box.height}
      size={small ? HANDLE_SIZE : SIZE}
      nudge={NUDGE}
      value={at}
      onMove={(from, by) =>
        change(`pass ${pass.id} ${label}`, command(moved({ u: from.u + by.u, v: from.v + by.v })))
      }
      onRemove={removed && (() => run(command(removed)))}
      onTurn={onTurn}
    />
  );
}
