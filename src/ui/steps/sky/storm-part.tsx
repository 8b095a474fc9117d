'use client';

import { Button } from '@mantine/core';
import { useScene, useView } from '../../editor/editor-context';
import classes from '../../worksheet/worksheet.module.css';

/** Bolts are fixtures: here they are begun and found again. */
export function StormPart() {
  const fixtures = useScene(({ scene }) => scene.fixtures);
  const setView = useView((view) => view.set);
  const bolts = fixtures.filter(({ kind }) => kind === 'bolt');
  return (
    <>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => setView({ step: 'fixtures', kind: 'bolt', chosen: undefined })}
        >
          Strike a bolt
        </Button>
        {bolts.map(({ id, name }) => (
          <Button
            key={id}
            size="compact-xs"
            variant="subtle"
            color="gray"
            onClick={() => setView({ step: 'fixtures', chosen: id })}
          >
            {name}
          </Button>
        ))}
      </div>
      <p className={classes.hint}>
        Drag from the cloud to what it hits. Bolts lie on a circuit of their own, Storm, and fade in on its
        fader.
      </p>
    </>
  );
}
