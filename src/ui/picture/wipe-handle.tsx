'use client';

import { useView } from '../editor/editor-context';
import { useFader } from '../controls/use-fader';
import classes from './picture.module.css';

const RANGE = { min: 0, max: 1, step: 0.01, unit: '', decimals: 2 };

/** The edge between night and day, dragged across the view. */
export function WipeHandle() {
  const wipe = useView((view) => view.wipe);
  const setView = useView((view) => view.set);
  const { position, props } = useFader({
    label: 'Wipe between night and day',
    value: wipe,
    range: RANGE,
    initial: 0.5,
    axis: 'right',
    text: `night to ${Math.round(100 * wipe)} %`,
    onChange: (value) => setView({ wipe: value }),
  });
  return (
    <div className={classes.wipe}>
      <span className={classes.wipeEdge} style={{ left: `${100 * position}%` }} />
      <div className={classes.wipeTrack} {...props}>
        <span className={classes.wipeKnob} style={{ left: `${100 * position}%` }} />
      </div>
    </div>
  );
}
