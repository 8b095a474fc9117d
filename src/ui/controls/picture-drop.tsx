'use client';

import { Button, Text } from '@mantine/core';
import { Dropzone } from '@mantine/dropzone';
import { useRef } from 'react';
import classes from '../worksheet/worksheet.module.css';

interface PictureDropProps {
  label: string;
  /** Whether one is being taken in. */
  taking: boolean;
  /** Why the last one was not. */
  fault: string | undefined;
  onTake: (file: File | undefined) => void;
}

/** Where a picture is dropped or chosen. */
export function PictureDrop({ label, taking, fault, onTake }: PictureDropProps) {
  const open = useRef<() => void>(null);
  return (
    <>
      <Dropzone
        openRef={open}
        onDrop={([file]) => onTake(file)}
        loading={taking}
        maxFiles={1}
        activateOnClick={false}
        p={8}
        // What says that one is taken in lies over this alone.
        pos="relative"
        inputProps={{ 'aria-label': label }}
      >
        <div className={classes.actions}>
          <Button size="compact-xs" variant="default" onClick={() => open.current?.()}>
            Choose a picture
          </Button>
          <Text size="xs">or drop one here</Text>
        </div>
      </Dropzone>
      {fault && <p role="alert">{fault}</p>}
    </>
  );
}
