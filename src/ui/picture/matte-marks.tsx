'use client';

import type { Pass } from '@/core/matte/pass';
import type { PlatePoint } from '@/core/plan/camera';
import { setPass } from '@/core/scene/commands';
import type { Matte } from '@/core/scene/schema';
import { useScene, useView } from '../editor/editor-context';
import type { Box } from './view-geometry';
import { PlaceHandle } from './place-handle';
import classes from './picture.module.css';

const SIZE = { grip: 12, knob: 4.5 };
const NUDGE = { step: 0.003, coarse: 10 };

/** The chosen pass of the chosen matte in the picture, with what can be dragged. */
export function MatteMarks({ box }: { box: Box }) {
  const chosen = useView((view) => view.matte);
  const passId = useView((view) => view.pass);
  const matte = useScene(({ scene }) => scene.mattes.find(({ id }) => id === chosen));
  const pass = matte?.passes.find(({ id }) => id === passId);
  if (!matte || !pass) return null;
  const handle = (
    label: string,
    at: PlatePoint,
    moved: (to: PlatePoint) => Partial<Pass>,
    removed?: Partial<Pass>,
  ) => (
    <Handle
      key={label}
      label={label}
      at={at}
      box={box}
      matte={matte}
      pass={pass}
      moved={moved}
      removed={removed}
    />
  );
  const place = ({ u, v }: PlatePoint) => `${u * box.width} ${v * box.height}`;
  switch (pass.kind) {
    case 'outline': {
      const { points } = pass;
      return (
        <g className={classes.surround}>
          {points.length > 1 && <path className={classes.outline} d={`M${points.map(place).join('L')}Z`} />}
          {points.map((point, index) =>
            handle(
              `Point ${index + 1}`,
              point,
              (to) => ({ points: points.map((other, i) => (i === index ? to : other)) }),
              { points: points.filter((_, i) => i !== index) },
            ),
          )}
        </g>
      );
    }
    case 'ramp': {
      const { from, to, shape } = pass;
      return (
        <g className={classes.surround}>
          {shape === 'round' ? (
            <ellipse
              cx={from.u * box.width}
              cy={from.v * box.height}
              rx={Math.abs(to.u - from.u) * box.width}
              ry={Math.abs(to.v - from.v) * box.height}
            />
          ) : (
            <path className={classes.outline} d={`M${place(from)}L${place(to)}`} />
          )}
          {handle('Full from here', from, (next) => ({ from: next }))}
          {handle('Nothing from here', to, (next) => ({ to: next }))}
        </g>
      );
    }
    case 'area':
      return <g className={classes.surround}>{handle('What it looks like', pass.at, (at) => ({ at }))}</g>;
    default:
      return null;
  }
}

interface HandleProps {
  label: string;
  at: PlatePoint;
  box: Box;
  matte: Matte;
  pass: Pass;
  moved: (to: PlatePoint) => Partial<Pass>;
  /** What Delete sets. */
  removed?: Partial<Pass>;
}

function Handle({ label, at, box, matte, pass, moved, removed }: HandleProps) {
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const command = (values: Partial<Pass>) =>
    setPass(`${matte.name}: ${label.toLowerCase()}`, matte.id, pass.id, values);
  return (
    <PlaceHandle
      label={label}
      x={at.u * box.width}
      y={at.v * box.height}
      size={SIZE}
      nudge={NUDGE}
      value={at}
      onMove={(from, by) =>
        change(`pass ${pass.id} ${label}`, command(moved({ u: from.u + by.u, v: from.v + by.v })))
      }
      onRemove={removed && (() => run(command(removed)))}
    />
  );
}
