'use client';

import { Button } from '@mantine/core';
import type { RefObject } from 'react';
import { useScene, useView } from '../../editor/editor-context';
import { PopUp } from '../../picture/pop-up';
import classes from '../../picture/picture.module.css';

/** The ground plan as a pop-up, in place of the picture. */
export function PopUpView({ day }: { day: RefObject<HTMLCanvasElement | null> }) {
  const scene = useScene((state) => state.scene);
  const setView = useView((view) => view.set);
  return (
    <div className={classes.popUp}>
      <PopUp scene={scene} day={day} label="The ground plan as a pop-up, turning" />
      <Button size="compact-xs" variant="default" onClick={() => setView({ popUp: false })}>
        Back to the picture
      </Button>
    </div>
  );
}
