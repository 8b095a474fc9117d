'use client';

import { KINDS } from '@/core/fixture/kinds';
import type { Fixture } from '@/core/scene/schema';
import { standingOf } from '@/state/fixture-actions';
import { useScene } from '../editor/editor-context';
import type { Box } from './view-geometry';
import classes from './picture.module.css';

const WIDTH = 176;
const HEIGHT = 84;

/** Units of a flux, by what it is of. */
const POWER = { whole: 'lm', each: 'lm each', metre: 'lm/m' } as const;

/** What the chosen fixture is, beside its drop. */
export function FixtureTag({ fixture, box, turned }: { fixture: Fixture; box: Box; turned: number }) {
  const scene = useScene((state) => state.scene);
  const { ahead, up, radius } = standingOf(scene, fixture);
  const { at, size, gel, lumens, name, kind, path } = fixture;
  const half = path.length > 0 ? Math.max(...path.map(({ u }) => u)) - at.u : size;
  const [x, y, r] = [at.u * box.width, at.v * box.height, half * box.width];
  const right = x + r + 24 + WIDTH < box.width;
  const left = right ? x + r + 24 : x - r - 24 - WIDTH;
  const top = Math.min(box.height - HEIGHT, Math.max(0, y - HEIGHT * 0.6));
  const rows = [
    ['gel', gel.from === 'kelvin' ? `${Math.round(gel.kelvin)} K` : 'off the picture'],
    ...(path.length === 0 ? [['across', `${(200 * radius).toFixed(0)} cm`]] : []),
    ['stands', `${ahead.toFixed(1)} m off, ${up.toFixed(2)} m up`],
  ];
  return (
    <div
      className={classes.tag}
      style={{ left: Math.max(0, left), top, width: WIDTH, rotate: `${turned}deg` }}
    >
      <div>
        <b>{name}</b>
        <b className={classes.lit}>
          {Math.round(lumens)} {POWER[KINDS[kind].powerPer]}
        </b>
      </div>
      {rows.map(([label, value]) => (
        <div key={label}>
          <span>{label}</span>
          <span>{value}</span>
        </div>
      ))}
    </div>
  );
}
