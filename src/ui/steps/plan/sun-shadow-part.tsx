'use client';

import { Button, NativeSelect } from '@mantine/core';
import { setPlan } from '@/core/scene/commands';
import { addMatte } from '@/core/scene/matte-commands';
import { MOST_MATTES } from '@/core/matte/matte-schema';
import { RANGES } from '@/core/fields/ranges';
import { newMatte, SUN_LIFT, sunShadowMatte } from '@/state/actions/matte-actions';
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
      {!sunShadow && <FindIt />}
    </>
  );
}

/** The ways to a matte of the shadow: found, or painted. */
function FindIt() {
  const mattes = useScene(({ scene }) => scene.mattes);
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const { scene: store } = useSession();

  function find(kind: 'shadow' | 'paint'): void {
    const { scene } = store.getState();
    const matte = kind === 'shadow' ? sunShadowMatte(scene) : newMatte(scene, kind);
    run(addMatte(matte));
    run(setPlan('Sun’s shadow', { sunShadow: { matte: matte.id, lift: SUN_LIFT } }));
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
