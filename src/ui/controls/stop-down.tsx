'use client';

import { Button } from '@mantine/core';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { RANGES } from '@/core/fields/ranges';
import { stoppedDown } from '@/state/actions/stop-down';
import { useScene, useSession } from '../editor/editor-context';
import { useFrameAtRest, useRead } from '../picture/use-read';
import classes from '../worksheet/worksheet.module.css';

/** From how many stops on it is said that what burns is too bright. */
const TELLING = 0.5;

/** Says when what burns is too bright for the night's exposure, and offers to stop it down; nothing while it is not. */
export function StopDown() {
  const { readout, scene: store } = useSession();
  const isDarkest = useScene(({ scene }) => scene.night.exposure <= RANGES.exposure.min);
  const run = useScene((state) => state.run);
  const measure = useStore(readout, ({ tooBright }) => tooBright);
  const read = useMemo(
    () => measure && (async () => ({ stops: await measure(store.getState().scene) })),
    [measure, store],
  );
  const told = useRead(read, useFrameAtRest());
  // What is told is over once it is mended, until it is measured again.
  const [mended, setMended] = useState<typeof told>();
  if (!told || told === mended || told.stops < TELLING || isDarkest) return null;
  const { stops } = told;
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
          setMended(told);
        }}
      >
        Stop down
      </Button>
    </div>
  );
}
