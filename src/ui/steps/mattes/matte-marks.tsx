'use client';

import type { RampPass } from '@/core/matte/pass';
import type { Matte } from '@/core/scene/schema';
import { useView } from '../../editor/editor-context';
import { BrushCircle } from '../../picture/brush-circle';
import { useChosenPass } from './use-matte-gestures';
import type { Box } from '../../picture/view-geometry';
import { add, Handle, less } from './matte-handle';
import { OutlineMarks, type MarksProps } from './outline-marks';
import classes from '../../picture/picture.module.css';

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
      {(pass.kind === 'paint' || pass.kind === 'edge') && <OwnBrush box={box} />}
    </g>
  );
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

/** How large the brush in hand is, under the pointer. */
function OwnBrush({ box }: { box: Box }) {
  const size = useView(({ brush }) => brush.size);
  const act = useView(({ edgeAct }) => edgeAct);
  const chosen = useChosenPass();
  return <BrushCircle radius={chosen?.pass.kind === 'edge' && act === 'loop' ? 2 : size * box.width} />;
}
