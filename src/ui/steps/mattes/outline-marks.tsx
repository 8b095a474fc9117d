'use client';

import { useEffect, type RefObject } from 'react';
import { roundPoint } from '@/core/geometry/flatten-outline';
import type { OutlinePass } from '@/core/matte/pass';
import type { OutlinePoint } from '@/core/geometry/flatten-outline';
import type { PlatePoint } from '@/core/geometry/camera';
import { setPass } from '@/core/scene/matte-commands';
import type { Matte } from '@/core/scene/schema';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { placeOnSvg } from '../../picture/place-on-svg';
import { drawLine } from '../../picture/draw-way';
import type { Box } from '../../picture/view-geometry';
import { add, Handle, less } from './matte-handle';
import classes from '../../picture/picture.module.css';

/** Outlines of more points than this show their line alone: a traced edge is moved by drawing it anew. */
const MOST_HANDLES = 250;

export interface MarksProps {
  box: Box;
  /** The path of the edge brush, and an edge that is being followed. */
  trail: RefObject<SVGPathElement | null>;
}

/** A handle turned to lie opposite another, as long as it was. */
function opposite(to: PlatePoint, before: PlatePoint): PlatePoint {
  const length = Math.hypot(to.u, to.v);
  const share = length === 0 ? 0 : Math.hypot(before.u, before.v) / length;
  return { u: -share * to.u, v: -share * to.v };
}

const placeIn =
  ({ width, height }: Box) =>
  ({ u, v }: PlatePoint) =>
    `${u * width} ${v * height}`;

/** The closed curve through an outline's points. */
function curveThrough(points: readonly OutlinePoint[], box: Box): string {
  const place = placeIn(box);
  const parts = points.map((point, i) => {
    const next = points[(i + 1) % points.length];
    const handles = [add(point, point.out ?? { u: 0, v: 0 }), add(next, next.in ?? { u: 0, v: 0 })];
    return `C${[...handles, next].map(place).join(',')}`;
  });
  return `M${place(points[0])}${parts.join('')}Z`;
}

/** A point whose handle at one end is moved: the other one turns with it. */
function turned(point: OutlinePoint, end: 'in' | 'out', to: PlatePoint): OutlinePoint {
  const handle = less(to, point);
  const other = end === 'in' ? 'out' : 'in';
  return { ...point, [end]: handle, [other]: opposite(handle, point[other] ?? handle) };
}

/** An outline with its points, and the handles of its curves. */
export function OutlineMarks({ box, matte, pass, trail }: MarksProps & { matte: Matte; pass: OutlinePass }) {
  const run = useScene((state) => state.run);
  const { points } = pass;
  useFollowedEdge(points, trail);
  const place = placeIn(box);
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
      {points.length > 1 && <path className={classes.outline} d={curveThrough(points, box)} />}
      {shown &&
        ends.map(({ point, at, end, index }) => (
          <path key={`${index} ${end}`} className={classes.outline} d={`M${place(point)}L${place(at)}`} />
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
            moved={(to) => replaced(index, turned(point, end, to))}
          />
        ))}
    </>
  );
}

/** While an outline follows edges, shows the way from its last point to the pointer. */
function useFollowedEdge(points: readonly OutlinePoint[], trail: RefObject<SVGPathElement | null>): void {
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
          drawLine(path, [last, ...found]);
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
  }, [following, last, segmenter, trail]);
}
