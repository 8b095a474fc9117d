'use client';

import { Button, NativeSelect } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useStore } from 'zustand';
import { setPlan, shadeWalls } from '@/core/scene/commands';
import { addMatte } from '@/core/scene/matte-commands';
import { MOST_MATTES } from '@/core/matte/matte-schema';
import { RANGES } from '@/core/fields/ranges';
import { newMatte, SUN_LIFT, sunShadowMatte } from '@/state/actions/matte-actions';
import { shadesToSay, stillUnsaid } from '@/state/actions/shade-guess';
import { NumberRow } from '../../controls/number-row';
import { useScene, useSession, useView } from '../../editor/editor-context';
import classes from '../../worksheet/worksheet.module.css';

/** The sun's own shadow, which would stay as a dark streak across lit ground. */
export function SunShadowPart() {
  const mattes = useScene(({ scene }) => scene.mattes);
  const sunShadow = useScene(({ scene }) => scene.plan.sunShadow);
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);

  return (
    <>
      <div className={classes.pair}>
        <span>Sun’s shadow</span>
        <NativeSelect
          aria-label="Matte of the sun’s shadow"
          size="xs"
          value={sunShadow?.matte ?? ''}
          data={[
            { value: '', label: 'left as it is' },
            ...mattes.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={({ currentTarget: { value } }) =>
            run(
              setPlan('Sun’s shadow', {
                sunShadow: value ? { matte: value, lift: sunShadow?.lift ?? SUN_LIFT } : undefined,
              }),
            )
          }
        />
      </div>
      {sunShadow && (
        <NumberRow
          label="Lift"
          value={sunShadow.lift}
          range={RANGES.strength}
          initial={SUN_LIFT}
          onChange={(lift) =>
            change('plan sunShadow', setPlan('Sun’s shadow: lift', { sunShadow: { ...sunShadow, lift } }))
          }
        />
      )}
      {sunShadow ? <FindWalls matte={sunShadow.matte} /> : <FindIt />}
    </>
  );
}

/** Looks which walls of the ground plan lie in the sun's shade, by their tones and by its shadow on the ground. */
function useWallsInShade() {
  const { scene: store, readout } = useSession();
  const land = useStore(readout, (state) => state.land);
  const coverage = useStore(readout, (state) => state.coverage);
  return async (matte: string): Promise<number> => {
    const { scene } = store.getState();
    if (!land || !coverage || scene.plan.walls.length === 0) return 0;
    const found = shadesToSay(scene, await land(scene), await coverage(scene, matte));
    const now = store.getState();
    const unsaid = stillUnsaid(now.scene, found);
    if (unsaid.size > 0) now.run(shadeWalls(unsaid));
    return found.size;
  };
}

/** Looks again for walls in the shade: those that were drawn since. */
function FindWalls({ matte }: { matte: string }) {
  const hasWalls = useScene(({ scene }) => scene.plan.walls.length > 0);
  const look = useWallsInShade();
  async function find(): Promise<void> {
    if ((await look(matte)) > 0) return;
    notifications.show({
      message: 'No other wall looks as if the sun missed it. Set “Day’s shade” of a wall to say so.',
    });
  }
  return (
    <div className={classes.actions}>
      <Button size="compact-xs" variant="default" disabled={!hasWalls} onClick={() => void find()}>
        Find walls in it
      </Button>
    </div>
  );
}

/** The ways to a matte of the shadow: found, or painted. */
function FindIt() {
  const mattes = useScene(({ scene }) => scene.mattes);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const { scene: store } = useSession();
  const look = useWallsInShade();

  function find(kind: 'shadow' | 'paint'): void {
    const { scene } = store.getState();
    const matte = kind === 'shadow' ? sunShadowMatte(scene) : newMatte(scene, kind);
    run(addMatte(matte));
    run(setPlan('Sun’s shadow', { sunShadow: { matte: matte.id, lift: SUN_LIFT } }));
    if (kind === 'shadow') void look(matte.id);
    if (kind === 'paint') setView({ step: 'mattes', matte: matte.id, pass: matte.passes[0].id });
  }

  return (
    <div className={classes.actions}>
      <Button
        size="compact-xs"
        variant="default"
        disabled={mattes.length >= MOST_MATTES}
        onClick={() => find('shadow')}
      >
        Find it
      </Button>
      <Button
        size="compact-xs"
        variant="default"
        disabled={mattes.length >= MOST_MATTES}
        onClick={() => find('paint')}
      >
        Paint it
      </Button>
    </div>
  );
}
