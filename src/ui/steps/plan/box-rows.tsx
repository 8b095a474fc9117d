'use client';

import { notifications } from '@mantine/notifications';
import { useStore } from 'zustand';
import { RANGES } from '@/core/fields/ranges';
import { cameraOf } from '@/core/picture/camera-of';
import { boxAt, boxMeasures, type BoxMeasures } from '@/core/plan/box-sides';
import { setSurface } from '@/core/scene/commands';
import type { GroundPlan } from '@/core/scene/schema';
import { boxed } from '@/state/actions/box-actions';
import { Choice } from '../../controls/choice';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene, useSession } from '../../editor/editor-context';

type Standee = GroundPlan['standees'][number];

const FORMS = [
  { value: 'card' as const, label: 'card' },
  { value: 'box' as const, label: 'box' },
];

const ROWS = [
  { key: 'turn', label: 'Turn', range: RANGES.boxTurn, initial: 0 },
  { key: 'left', label: 'Left side', range: RANGES.boxSide, initial: 1 },
  { key: 'right', label: 'Right side', range: RANGES.boxSide, initial: 1 },
  { key: 'height', label: 'Box height', range: RANGES.boxHeight, initial: 1.5 },
] as const satisfies { key: keyof BoxMeasures; label: string; range: unknown; initial: number }[];

/** Whether a standee is a card that faces the eye or a box with sides, and how that stands. */
export function BoxRows({ standee }: { standee: Standee }) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const { readout } = useSession();
  const coverage = useStore(readout, (state) => state.coverage);
  const { id, name, matte, foot, box } = standee;
  const { decks } = scene.plan;
  const camera = cameraOf(scene);
  const measures = boxMeasures(camera, standee, decks);

  async function takeForm(form: 'card' | 'box'): Promise<void> {
    if (form === 'card') {
      run(setSurface(`${name}: a card`, 'standees', id, { box: undefined }));
      return;
    }
    const fitted = coverage && boxed(scene, standee, await coverage(scene, matte));
    if (fitted) run(setSurface(`${name}: a box`, 'standees', id, fitted));
    else
      notifications.show({
        color: 'yellow',
        message: `${name} is not seen to stand on the ground. Drag its foot to where its nearest corner stands.`,
      });
  }

  const set = (key: keyof BoxMeasures, label: string, value: number) => {
    const next = measures && boxAt(camera, foot, decks, { ...measures, [key]: value });
    if (next)
      change(
        `surface ${id} box ${key}`,
        setSurface(`${name}: ${label.toLowerCase()}`, 'standees', id, { box: next }),
      );
  };
  return (
    <>
      <Choice
        caption="Form"
        label="Form of the standee"
        data={FORMS}
        value={box ? 'box' : 'card'}
        onChange={(form) => void takeForm(form)}
      />
      {measures &&
        ROWS.map(({ key, label, range, initial }) => (
          <NumberRow
            key={key}
            label={label}
            value={measures[key]}
            range={range}
            initial={initial}
            scale={key === 'turn' ? undefined : ratioScale(range)}
            onChange={(value) => set(key, label, value)}
          />
        ))}
    </>
  );
}
