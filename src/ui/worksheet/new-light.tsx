'use client';

import { Button, NativeSelect, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import { useStore } from 'zustand';
import type { Kind } from '@/core/fixture/kind';
import { KINDS } from '@/core/fixture/kinds';
import { middleOfPath } from '@/state/fixture-actions';
import { missingLetters } from '@/state/lettering';
import { outlineOf, scatterIn } from '@/state/matte-lights';
import { useScene, useSession, useView } from '../editor/editor-context';
import { useLightFixture } from '../editor/use-light-fixture';
import classes from './worksheet.module.css';

/** How many bulbs are scattered in a matte. */
const SCATTERED = 60;

/** Other ways to light than by a gesture: lettering, and the outline or the inside of a matte. */
export function NewLight() {
  const kind = useView((view) => view.kind);
  const lettering = useView((view) => view.lettering);
  const framing = useView((view) => view.framing);
  const setView = useView((view) => view.set);
  const mattes = useScene(({ scene }) => scene.mattes);
  const missing = missingLetters(lettering);
  const isStroke = KINDS[kind].gesture === 'stroke';
  return (
    <>
      {isStroke && (
        <TextInput
          className={classes.lettering}
          size="xs"
          aria-label="Lettering"
          placeholder="Lettering: type it, then drag its foot"
          maxLength={24}
          value={lettering}
          onChange={({ currentTarget: { value } }) => setView({ lettering: value })}
          error={
            missing.length > 0 ? `No tube is bent for ${missing.join(' ')} yet; it is left out.` : undefined
          }
        />
      )}
      {isStroke && (
        <div className={classes.actions}>
          <Button
            size="compact-xs"
            variant={framing ? 'filled' : 'default'}
            aria-pressed={framing}
            onClick={() => setView({ framing: !framing })}
          >
            Around a frame
          </Button>
        </div>
      )}
      {KINDS[kind].ofMatte && mattes.length > 0 && <OfAMatte {...KINDS[kind].ofMatte} />}
    </>
  );
}

function OfAMatte({ label, path: way }: NonNullable<Kind['ofMatte']>) {
  const { scene: store, readout } = useSession();
  const mattes = useScene(({ scene }) => scene.mattes);
  const coverage = useStore(readout, (state) => state.coverage);
  const light = useLightFixture();
  const [chosen, setChosen] = useState<string>();
  const matte = mattes.find(({ id }) => id === chosen) ?? mattes[0];

  async function lightIt(): Promise<void> {
    if (!coverage) return;
    const covered = await coverage(store.getState().scene, matte.id);
    const path = way === 'scatter' ? scatterIn(covered, SCATTERED, 1) : outlineOf(covered);
    if (path && path.length > 2)
      return light(middleOfPath(path), path, way === 'scatter' ? { count: 0 } : {});
    notifications.show({ color: 'yellow', message: `${matte.name} covers nothing that could be lit.` });
  }

  return (
    <div className={classes.pair}>
      <NativeSelect
        size="xs"
        aria-label="Matte to light"
        value={matte.id}
        data={mattes.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={({ currentTarget: { value } }) => setChosen(value)}
      />
      <Button size="compact-xs" variant="default" disabled={!coverage} onClick={() => void lightIt()}>
        {label}
      </Button>
    </div>
  );
}
