'use client';

import { notifications } from '@mantine/notifications';
import { useEffect, useState } from 'react';
import { openSession, type Opening } from '@/state/session/open-session';
import type { Engine } from '@/state/work/engine';
import { Desk } from '../desk/desk';
import { Picture } from '../picture/picture';
import { SLICES } from '../view/slices';
import { createViewStore } from '../view/view-store';
import { Worksheet } from '../worksheet/worksheet';
import { BROWSER } from './browser';
import { Deeds } from './deeds';
import { EditorContext, useScene } from './editor-context';
import { Header } from './header';
import { SaveConflict } from './save-conflict';
import { useCopyingKeys } from './use-copying';
import { useEditorKeys } from './use-editor-keys';
import classes from './editor.module.css';

/** The step that is open at first. */
const FIRST_STEP = 'fixtures';

const LOST =
  'This browser kept changes of this scene that were not saved, but they cannot be read any more. The scene is as it was saved.';

export interface EditorProps {
  opened: Opening;
  /** Gives out what frames are made on: it has begun already. */
  takeEngine: () => Engine;
}

/** The editor of one scene. */
export function Editor({ opened, takeEngine }: EditorProps) {
  const [session] = useState(() => ({
    ...openSession(opened, BROWSER),
    takeEngine,
    view: createViewStore(SLICES, FIRST_STEP),
  }));
  useEffect(() => session.start(), [session]);
  useEffect(() => {
    if (opened.lost) notifications.show({ color: 'yellow', autoClose: false, message: LOST });
  }, [opened]);
  return (
    <EditorContext.Provider value={session}>
      <EditorBody />
    </EditorContext.Provider>
  );
}

/** Says which step was not done, and why. */
function useRefusals() {
  const refusal = useScene((state) => state.refusal);
  useEffect(() => {
    if (!refusal) return;
    const { label, fault } = refusal;
    const message = `“${label}” was not done: ${fault}. The scene is as it was before.`;
    notifications.show({ color: 'red', message });
  }, [refusal]);
}

function EditorBody() {
  useEditorKeys();
  useCopyingKeys();
  useRefusals();
  return (
    <div className={classes.editor}>
      <Header />
      <div className={classes.middle}>
        <Worksheet />
        <Picture />
      </div>
      <Desk />
      <SaveConflict />
      <Deeds />
    </div>
  );
}
