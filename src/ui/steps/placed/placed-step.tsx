'use client';

import { UnstyledButton } from '@mantine/core';
import { placedFaults } from '@/core/picture/placed-faults';
import { aheadOf } from '@/state/actions/placed-actions';
import { PictureDrop } from '../../controls/picture-drop';
import { useScene, useView } from '../../editor/editor-context';
import { ChosenPlaced } from './chosen-placed';
import { usePlacePicture } from './use-place-picture';
import lists from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';

/** Things cut from other pictures that stand here. */
export function PlacedStep() {
  const scene = useScene((state) => state.scene);
  const chosen = useView((view) => view.placed);
  const setView = useView((view) => view.set);
  const { take, taking, fault, note } = usePlacePicture();
  const placed = scene.placed.find(({ id }) => id === chosen);
  return (
    <>
      <PictureDrop
        label="A picture to place"
        taking={taking}
        fault={fault}
        onTake={(file) => void take(file)}
      />
      {note && <p className={classes.hint}>{note}</p>}
      {scene.placed.length === 0 && (
        <p className={classes.hint}>
          Bring a lamp post, a sign or a person from another photo. What is clear in its file stays clear;
          anything else is cut out here.
        </p>
      )}
      <ul className={lists.list} aria-label="Placed pictures">
        {scene.placed.map((one) => (
          <li key={one.id}>
            <UnstyledButton
              className={lists.item}
              aria-pressed={one.id === chosen}
              onClick={() => setView({ placed: one.id === chosen ? undefined : one.id })}
            >
              {one.name}
              <span>{`${aheadOf(scene, one).toFixed(1)} m off`}</span>
            </UnstyledButton>
          </li>
        ))}
      </ul>
      {placedFaults(scene).map((wrong) => (
        <p key={wrong} role="alert">
          {wrong}
        </p>
      ))}
      {placed && <ChosenPlaced key={placed.id} placed={placed} />}
    </>
  );
}
