'use client';

import { Button, Switch } from '@mantine/core';
import { useState } from 'react';
import { fittedPlace } from '@/core/sky/fitted-place';
import { RANGES, type Range } from '@/core/fields/ranges';
import { setSky, setSkyPicture } from '@/core/scene/sky-commands';
import { nameOfFile } from '@/state/actions/free-name';
import { api } from '@/state/session/api';
import { NumberRow } from '../../controls/number-row';
import { PictureDrop } from '../../controls/picture-drop';
import { useScene, useSession, useView } from '../../editor/editor-context';
import classes from '../../worksheet/worksheet.module.css';

const LONGEST = 80;

/** How a picture of a sky begins: as bright as the hour's, in its colour for the most part. */
const BEGIN = { turn: 0, share: 1, exposure: 0, fit: 0.6 } as const;

/** A picture of a sky of one's own: dropped, placed, fitted to the hour. */
export function PicturePart() {
  const picture = useScene(({ scene }) => scene.sky.picture);
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const placing = useView((view) => view.placingSky);
  const setView = useView((view) => view.set);
  const row = (
    name: 'share' | 'exposure' | 'fit' | 'across' | 'turn',
    label: string,
    range: Range,
    initial: number,
  ) => (
    <NumberRow
      label={label}
      value={picture![name]}
      range={range}
      initial={initial}
      onChange={(value) =>
        change(`sky picture ${name}`, setSkyPicture(`Sky’s picture: ${label}`, { [name]: value }))
      }
    />
  );
  return (
    <>
      <SkyDrop />
      {picture && (
        <>
          {row('share', 'Shows', RANGES.strength, BEGIN.share)}
          {row('exposure', 'Exposure', RANGES.skyStops, BEGIN.exposure)}
          {row('fit', 'Hour’s colour', RANGES.strength, BEGIN.fit)}
          {row('across', 'Width', RANGES.skyAcross, 1.2)}
          {row('turn', 'Turn', RANGES.tilt, BEGIN.turn)}
          <div className={classes.actions}>
            <Switch
              size="xs"
              label="See through it while placing"
              checked={placing}
              onChange={({ currentTarget: { checked } }) => setView({ placingSky: checked })}
            />
            <Button
              size="compact-xs"
              variant="subtle"
              color="gray"
              onClick={() => run(setSky('Take the sky’s picture out', { picture: null }))}
            >
              Take out
            </Button>
          </div>
        </>
      )}
    </>
  );
}

/** Where a picture is dropped or chosen. */
function SkyDrop() {
  const id = useScene((state) => state.id);
  const run = useScene((state) => state.run);
  const { scene: store } = useSession();
  const [fault, setFault] = useState<string>();
  const [taking, setTaking] = useState(false);

  async function take(file: File | undefined): Promise<void> {
    if (!file) return;
    setFault(undefined);
    setTaking(true);
    try {
      const { asset, width, height } = await api.takeSky(id, file);
      const name = nameOfFile(file.name, LONGEST) || 'sky';
      const { plan, plate } = store.getState().scene;
      const place = fittedPlace(plan.horizon, plate.width / plate.height, width / height);
      run(setSky(`Sky’s picture: ${name}`, { picture: { asset, name, width, height, ...BEGIN, ...place } }));
    } catch (error) {
      setFault(`${file.name}: ${(error as Error).message}`);
    } finally {
      setTaking(false);
    }
  }

  return (
    <PictureDrop
      label="A picture of a sky"
      taking={taking}
      fault={fault}
      onTake={(file) => void take(file)}
    />
  );
}
