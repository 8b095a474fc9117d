'use client';

import type { PlatePoint } from '@/core/geometry/camera';
import { setFixture } from '@/core/scene/commands';
import { KINDS } from '@/core/fixture/kinds';
import type { Fixture } from '@/core/scene/schema';
import { middleOfPath } from '@/state/fixture-actions';
import { useScene } from '../editor/editor-context';
import { PlaceHandle } from './place-handle';
import type { Box } from './view-geometry';
import classes from './picture.module.css';

const SIZE = { grip: 9, knob: 3.5 };
const NUDGE = { step: 0.001, coarse: 10 };

/** Paths with more points than this show no handles: they were drawn as one stroke. */
const MOST_HANDLES = 24;

/** The outline of a pane or the way of a tube; that of the chosen one is dragged by its corners. */
export function FixturePath({ fixture, box, chosen }: { fixture: Fixture; box: Box; chosen: boolean }) {
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const { id, name, kind, path } = fixture;
  const breaks = fixture.kind === 'tube' ? fixture.breaks : [];
  const set = (next: PlatePoint[]) =>
    setFixture(`${name}: corner`, id, { path: next, at: middleOfPath(next) });
  const points = path
    .map(({ u, v }, i) => `${i === 0 || breaks.includes(i) ? 'M' : 'L'}${u * box.width} ${v * box.height}`)
    .join('');
  return (
    <>
      <path className={classes.way} d={`${points}${KINDS[kind].closed ? 'Z' : ''}`} />
      {chosen &&
        path.length <= MOST_HANDLES &&
        breaks.length === 0 &&
        path.map((at, index) => (
          <PlaceHandle
            key={index}
            label={`${name}, corner ${index + 1}`}
            x={at.u * box.width}
            y={at.v * box.height}
            size={SIZE}
            nudge={NUDGE}
            value={at}
            onMove={(from, by) =>
              change(
                `fixture ${id} corner ${index}`,
                set(path.map((point, i) => (i === index ? { u: from.u + by.u, v: from.v + by.v } : point))),
              )
            }
            onRemove={
              path.length > KINDS[kind].fewestPoints
                ? () => run(set(path.filter((_, i) => i !== index)))
                : undefined
            }
          />
        ))}
    </>
  );
}
