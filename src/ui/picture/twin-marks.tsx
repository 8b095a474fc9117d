'use client';

import type { Alike } from '@/core/fixture/twins';
import { useView } from '../editor/editor-context';
import type { Box } from './view-geometry';
import classes from './picture.module.css';

/** Least radius of a ring, CSS pixels. */
const SMALLEST = 9;

/** Rings around what looks like the chosen fixture. */
export function TwinMarks({ box, size }: { box: Box; size: number }) {
  const twins = useView((view) => view.twins);
  const ring = ({ at, times }: Alike, i: number) => (
    <circle
      key={i}
      className={classes.guess}
      cx={at.u * box.width}
      cy={at.v * box.height}
      r={Math.max(SMALLEST, 1.6 * size * times * box.width)}
    />
  );
  return <g data-testid="twins">{twins?.found.map(ring)}</g>;
}
