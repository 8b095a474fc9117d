'use client';

import { ambientLux, hourName, HOURS, sunDepth } from '@/core/night/hour';
import { FIRST_HOUR } from '@/core/night/starting-night';
import { setHour } from '@/core/scene/commands';
import { useScene } from '../editor/editor-context';
import { useFader } from '../controls/use-fader';
import classes from './hour-line.module.css';

const RANGE = { min: 0, max: 1, step: 0.005, unit: '', decimals: 3 };

/** Lux as a person says them. */
function luxText(lux: number): string {
  return `${lux < 1 ? lux.toFixed(2) : lux < 10 ? lux.toFixed(1) : Math.round(lux)} lx`;
}

/** The evening clock: one handle from sunset to deep night. */
export function HourLine() {
  const hour = useScene(({ scene }) => scene.night.hour);
  const change = useScene((state) => state.change);
  const says = `${hourName(hour)}, sun ${Math.round(sunDepth(hour))}° down, ${luxText(ambientLux(hour))}`;
  const { position, props } = useFader({
    label: 'Hour',
    value: hour,
    range: RANGE,
    initial: FIRST_HOUR,
    axis: 'right',
    text: says,
    onChange: (value) => change('hour', setHour(value)),
  });
  return (
    <div className={classes.hour}>
      <span className={classes.says} style={{ left: `clamp(80px, ${100 * position}%, calc(100% - 80px))` }}>
        {says}
      </span>
      <div className={classes.track} {...props}>
        <div className={classes.line} />
        <div className={classes.sun} style={{ left: `${100 * position}%` }}>
          <span style={{ left: `${4 + 55 * position}%` }} />
        </div>
      </div>
      <div className={classes.names} aria-hidden>
        {HOURS.map(({ at, name }) => (
          <span key={name} style={{ left: `${100 * at}%`, translate: `${-100 * at}%` }}>
            {name}
          </span>
        ))}
      </div>
    </div>
  );
}
