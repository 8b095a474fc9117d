'use client';

import { Button, Switch } from '@mantine/core';
import { useState } from 'react';
import { useStore } from 'zustand';
import { startingNight } from '@/core/night/starting-night';
import { setNightPart } from '@/core/scene/commands';
import { RANGES } from '@/core/fields/ranges';
import { NumberRow } from '../../controls/number-row';
import { useScene, useSession } from '../../editor/editor-context';
import { ToneStrip } from './tone-strip';
import classes from '../../worksheet/worksheet.module.css';

const round = (tone: number) => Math.round(1000 * tone) / 1000;

/** Every tone takes a colour; then the tones are refitted to the range that is left to them. */
export function ByTonePart() {
  const { byTone, refit } = useScene(({ scene }) => scene.night);
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const session = useSession();
  const measure = useStore(session.readout, (readout) => readout.toneRange);
  const [fault, setFault] = useState<string>();

  async function refitNow(): Promise<void> {
    setFault(undefined);
    try {
      const { low, high } = await measure!(session.scene.getState().scene);
      run(setNightPart('Refit the tones', 'refit', { always: false, low: round(low), high: round(high) }));
    } catch (error) {
      setFault((error as Error).message);
    }
  }

  return (
    <>
      <NumberRow
        label="Strength"
        value={byTone.strength}
        range={RANGES.strength}
        initial={0}
        onChange={(strength) =>
          change('night strength', setNightPart('Colour by tone', 'byTone', { strength }))
        }
      />
      <ToneStrip />
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" disabled={!measure} onClick={() => void refitNow()}>
          Refit the tones
        </Button>
        <Switch
          size="xs"
          label="always"
          checked={refit.always}
          onChange={({ currentTarget: { checked } }) =>
            run(setNightPart(checked ? 'Always refit' : 'Refit no more', 'refit', { always: checked }))
          }
        />
        <Reset />
      </div>
      {!refit.always && (
        <>
          <EndRow end="low" label="Darkest" initial={0} />
          <EndRow end="high" label="Brightest" initial={1} />
        </>
      )}
      {fault && <p role="alert">{fault}</p>}
    </>
  );
}

/** One end of the range to which tones are refitted. */
function EndRow({ end, label, initial }: { end: 'low' | 'high'; label: string; initial: number }) {
  const value = useScene(({ scene }) => scene.night.refit[end]);
  const change = useScene((state) => state.change);
  return (
    <NumberRow
      label={label}
      value={value}
      range={RANGES.tone}
      initial={initial}
      onChange={(now) => change(`night refit ${end}`, setNightPart(label, 'refit', { [end]: now }))}
    />
  );
}

function Reset() {
  const run = useScene((state) => state.run);
  return (
    <Button
      size="compact-xs"
      variant="subtle"
      color="gray"
      onClick={() => {
        const { byTone: start, refit: fit } = startingNight(0);
        run({
          label: 'Reset colour by tone',
          apply: ({ night }) => {
            night.byTone = start;
            night.refit = fit;
          },
        });
      }}
    >
      Reset
    </Button>
  );
}
