'use client';

import { UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import { NOCTURNES } from '@/core/night/nocturnes';
import { setNight } from '@/core/scene/commands';
import { api } from '@/state/api';
import { useScene } from '../editor/editor-context';
import { ServedImage } from '../controls/served-image';
import classes from './worksheet.module.css';

/** Ready-made nights, each shown on this very plate with the lamps that burn in it. */
export function NocturneWall() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <UnstyledButton className={classes.fold} aria-expanded={open} onClick={() => setOpen(!open)}>
        Start from a nocturne
      </UnstyledButton>
      {open && <Wall />}
    </>
  );
}

function Wall() {
  const id = useScene((state) => state.id);
  const plate = useScene(({ scene }) => scene.plate);
  const lit = useScene(({ scene }) => scene.fixtures.length);
  const run = useScene((state) => state.run);
  // The wall shows the scene as it was when it was opened; a look at another night does not make it anew.
  const [version] = useState(() => `${lit}-${Date.now()}`);
  return (
    <div className={classes.nocturnes}>
      {NOCTURNES.map(({ id: nocturne, name, night }) => (
        <UnstyledButton key={nocturne} onClick={() => run(setNight(`Nocturne: ${name}`, night))}>
          <ServedImage
            src={api.thumbnail(id, nocturne, version)}
            alt=""
            style={{ aspectRatio: `${plate.width} / ${plate.height}` }}
          />
          {name}
        </UnstyledButton>
      ))}
    </div>
  );
}
