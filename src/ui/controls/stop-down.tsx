'use client';

import { Button } from '@mantine/core';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { RANGES } from '@/core/fields/ranges';
import { stoppedDown } from '@/state/actions/stop-down';
import { useScene, useSession } from '../editor/editor-context';
import classes from '../worksheet/worksheet.module.css';

/** From how many stops on it is said that what burns is too bright. */
const TELLING = 0.5;

/** Says when what burns is too bright for the night's exposure, and offers to stop it down; nothing while it is not. */
export function StopDown() {
  const { readout, scene: store } = useSession();
  const isDarkest = useScene(({ scene }) => scene.night.exposure <= RANGES.exposure.min);
  const run = useScene((state) => state.run);
  const measure = useStore(readout, ({ tooBright }) => tooBright);
  // A new frame is a new readout: by then the light is there to be measured.
  const frame = useStore(readout, ({ night }) => night);
  const [stops, setStops] = useState(0);
  useEffect(() => {
    let left = false;
    measure?.(store.getState().scene).then(
      (told) => {
        if (!left) setStops(told);
      },
      () => {},
    );
    return () => {
      left = true;
    };
  }, [measure, frame, store]);
  if (stops < TELLING || isDarkest) return null;
  return (
    <div className={classes.actions}>
      <span className={classes.hint} role="status">
        {`What burns is ${stops.toFixed(1)} stops too bright for the night’s exposure.`}
      </span>
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => {
          run(stoppedDown(store.getState().scene, stops));
          setStops(0);
        }}
      >
        Stop down
      </Button>
    </div>
  );
}
